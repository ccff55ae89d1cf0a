import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  await (await useTrough()).hooks.remove(idOf(event))
  return sendNoContent(event)
})
