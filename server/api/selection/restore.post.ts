import { defineEventHandler } from 'h3'
import { selectionSchema } from '../../../core/files/selection'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).library.restore(await parseBody(event, selectionSchema, { most: MANY })),
)
