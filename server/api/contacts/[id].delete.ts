import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Erases somebody with all traces. */
export default defineEventHandler(async event => {
  await (await useTrough()).contacts.erase(idOf(event))
  return sendNoContent(event)
})
