import { defineEventHandler } from 'h3'
import { selectionSchema } from '../../../../core/files/selection'
import { MANY, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Lays out a zip of a selection; its address is good for an hour. */
export default defineEventHandler(async event =>
  (await useTrough()).zipping.prepare(await parseBody(event, selectionSchema, { most: MANY })),
)
