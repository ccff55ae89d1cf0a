import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Takes a personal link back. */
export default defineEventHandler(async event => {
  await (await useTrough()).personalLinks.revoke(idOf(event))
  return sendNoContent(event)
})
