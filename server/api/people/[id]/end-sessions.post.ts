import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Signs somebody out everywhere. */
export default defineEventHandler(async event => {
  await (await useTrough()).people.endSessions(idOf(event))
  return sendNoContent(event)
})
