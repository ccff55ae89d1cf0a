import { defineEventHandler } from 'h3'
import { forGoodSchema } from '../../../core/files/selection'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** What deleting files of the bin for good would free. */
export default defineEventHandler(async event =>
  (await useTrough()).cleaner.wouldFree((await parseBody(event, forGoodSchema, { most: MANY })).files),
)
