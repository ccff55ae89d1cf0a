import { Readable } from 'node:stream'
import { defineEventHandler, sendStream, setResponseHeaders } from 'h3'
import { foundViewSchema } from '../../../core/tally/board'
import { accessOf } from '../../utils/access'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** The downloads of a view as a table (RFC 4180), in pieces as they are read. */
export default defineEventHandler(async event => {
  const { downloads } = await useTrough()
  const people = (await accessOf(event)).may('contacts')
  const view = parseQuery(event, foundViewSchema)
  setResponseHeaders(event, { 'Content-Type': 'text/csv; charset=utf-8', 'Content-Disposition': 'attachment; filename="downloads.csv"' })
  return sendStream(event, Readable.from(downloads.csv(view, { people })))
})
