import { Readable } from 'node:stream'
import { defineEventHandler, sendStream, setResponseHeaders } from 'h3'
import { journalQuerySchema } from '../../services/account/journal'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** What the filter lets through as a table (RFC 4180), in pieces as it is read. */
export default defineEventHandler(async event => {
  const { journal } = await useTrough()
  const query = parseQuery(event, journalQuerySchema)
  setResponseHeaders(event, { 'Content-Type': 'text/csv; charset=utf-8', 'Content-Disposition': 'attachment; filename="log.csv"' })
  return sendStream(event, Readable.from(journal.csv(query)))
})
