import { Readable } from 'node:stream'
import { defineEventHandler, sendStream, setResponseHeaders } from 'h3'
import { contactQuerySchema } from '../../../core/contacts/contact'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Everyone as a table (RFC 4180), in pieces as they are read. */
export default defineEventHandler(async event => {
  const { contacts } = await useTrough()
  const query = parseQuery(event, contactQuerySchema)
  setResponseHeaders(event, { 'Content-Type': 'text/csv; charset=utf-8', 'Content-Disposition': 'attachment; filename="contacts.csv"' })
  return sendStream(event, Readable.from(contacts.csv(query)))
})
