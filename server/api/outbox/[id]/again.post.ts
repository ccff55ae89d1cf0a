import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Has a message sent again. */
export default defineEventHandler(async event => {
  await (await useTrough()).outbox.again(idOf(event))
  return sendNoContent(event)
})
