import { defineEventHandler, sendNoContent } from 'h3'
import { despiteQuerySchema } from '../../../../core/page/pageItem'
import { idOf, parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  await (await useTrough()).pages.remove(idOf(event), parseQuery(event, despiteQuerySchema))
  return sendNoContent(event)
})
