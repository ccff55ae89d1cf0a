import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Forgets who handed it in; its files stay in the library. */
export default defineEventHandler(async event => {
  await (await useTrough()).arrivals.remove(idOf(event))
  return sendNoContent(event)
})
