import { defineEventHandler } from 'h3'
import { newLookSchema } from '../../../core/look/look'
import { idOf, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).looks.change(idOf(event), await parseBody(event, newLookSchema.partial())),
)
