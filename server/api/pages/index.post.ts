import { defineEventHandler, setResponseStatus } from 'h3'
import { newPageSchema } from '../../../core/page/pageItem'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const page = await (await useTrough()).pages.create(await parseBody(event, newPageSchema))
  setResponseStatus(event, 201)
  return page
})
