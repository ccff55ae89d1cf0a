import { defineEventHandler, setResponseHeaders } from 'h3'
import { PAGE_HEADERS } from '../../../services/published/packed'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The draft of a page as visitors would get it. */
export default defineEventHandler(async event => {
  const html = await (await useTrough()).published.preview(idOf(event))
  setResponseHeaders(event, { ...PAGE_HEADERS, 'Content-Type': 'text/html; charset=utf-8', 'Cache-Control': 'private, no-store' })
  return html
})
