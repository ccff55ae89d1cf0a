import { defineEventHandler, sendNoContent } from 'h3'
import { despiteQuerySchema } from '../../../../core/page/pageItem'
import { accessOf } from '../../../utils/access'
import { idOf, parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  const { pages } = await useTrough()
  if ((await pages.get(idOf(event))).published) (await accessOf(event)).must('publish')
  await pages.remove(idOf(event), parseQuery(event, despiteQuerySchema))
  return sendNoContent(event)
})
