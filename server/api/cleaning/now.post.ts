import { defineEventHandler, sendNoContent } from 'h3'
import { useTrough } from '../../utils/trough'

/** Cleans by the rules that are set, without waiting for the hour. */
export default defineEventHandler(async event => {
  await (await useTrough()).cleaner.clean()
  return sendNoContent(event)
})
