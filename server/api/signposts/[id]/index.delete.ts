import { defineEventHandler, sendNoContent } from 'h3'
import { deleteSignpostSchema } from '../../../../core/signposts/signpostItem'
import { idOf, parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  await (await useTrough()).signposts.remove(idOf(event), parseQuery(event, deleteSignpostSchema))
  return sendNoContent(event)
})
