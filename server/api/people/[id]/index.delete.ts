import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Lets somebody go. */
export default defineEventHandler(async event => {
  await (await useTrough()).people.letGo(idOf(event))
  return sendNoContent(event)
})
