import { defineEventHandler, sendNoContent } from 'h3'
import { idOf } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Takes an invitation back. */
export default defineEventHandler(async event => {
  await (await useTrough()).people.withdraw(idOf(event))
  return sendNoContent(event)
})
