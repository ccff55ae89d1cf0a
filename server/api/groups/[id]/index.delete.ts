import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Takes a group away; who was in it stays. */
export default defineEventHandler(async event => {
  await (await useTrough()).guests.removeGroup(idOf(event))
  return sendNoContent(event)
})
