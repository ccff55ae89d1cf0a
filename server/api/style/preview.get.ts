import { defineEventHandler, setResponseHeaders } from 'h3'
import { z } from 'zod'
import { SITE_STYLE_NAMES, dressedIn } from '../../../core/look/siteStyles'
import { PAGE_HEADERS } from '../../services/published/packed'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

const querySchema = z.object({ style: z.enum(SITE_STYLE_NAMES), slug: z.string().max(80).default('') })

/** A live page as it would be in one of the finished styles. */
export default defineEventHandler(async event => {
  const { style, slug } = parseQuery(event, querySchema)
  const { published, looks } = await useTrough()
  const html = await published.inStyle(dressedIn(style, await looks.style()), slug)
  setResponseHeaders(event, { ...PAGE_HEADERS, 'Content-Type': 'text/html; charset=utf-8', 'Cache-Control': 'private, no-store' })
  return html
})
