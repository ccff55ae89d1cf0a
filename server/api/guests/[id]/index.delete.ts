import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Forgets somebody. */
export default defineEventHandler(async event => {
  await (await useTrough()).guests.remove(idOf(event))
  return sendNoContent(event)
})
