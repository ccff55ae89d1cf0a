import { defineEventHandler, sendNoContent } from 'h3'
import { useTrough } from '../../../utils/trough'

/** Writes a summary of the last whole period now. */
export default defineEventHandler(async event => {
  await (await useTrough()).summaries.tellNow()
  return sendNoContent(event)
})
