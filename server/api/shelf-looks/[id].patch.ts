import { defineEventHandler } from 'h3'
import { newShelfLookSchema } from '../../../core/shelf/shelfLook'
import { idOf, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).shelfLooks.change(idOf(event), await parseBody(event, newShelfLookSchema.partial())),
)
