import { Readable } from 'node:stream'
import { defineEventHandler, sendStream, setResponseHeaders } from 'h3'
import { viewSchema } from '../../../core/tally/board'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** The downloads of a view as a table (RFC 4180), in pieces as they are read. */
export default defineEventHandler(async event => {
  const { downloads } = await useTrough()
  const view = parseQuery(event, viewSchema)
  setResponseHeaders(event, { 'Content-Type': 'text/csv; charset=utf-8', 'Content-Disposition': 'attachment; filename="downloads.csv"' })
  return sendStream(event, Readable.from(downloads.csv(view)))
})
