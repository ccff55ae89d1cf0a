import { defineEventHandler } from 'h3'
import { forGoodSchema } from '../../../core/files/selection'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Deletes files of the bin for good, some or all; says how many, and what that freed. */
export default defineEventHandler(async event =>
  (await useTrough()).cleaner.emptyBin((await parseBody(event, forGoodSchema, { most: MANY })).files),
)
