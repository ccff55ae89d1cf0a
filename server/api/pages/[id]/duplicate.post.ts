import { defineEventHandler, setResponseStatus } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  const page = await (await useTrough()).pages.duplicate(idOf(event))
  setResponseStatus(event, 201)
  return page
})
