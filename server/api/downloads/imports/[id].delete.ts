import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Takes out what was brought in, all of it. */
export default defineEventHandler(async event => {
  await (await useTrough()).bringing.undo(idOf(event))
  return sendNoContent(event)
})
