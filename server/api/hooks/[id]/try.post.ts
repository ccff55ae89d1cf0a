import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Sends a message that says nothing but that it arrived. */
export default defineEventHandler(async event => {
  await (await useTrough()).hooks.try(idOf(event))
  return sendNoContent(event)
})
