import { defineEventHandler, type H3Event } from 'h3'
import { RESERVED_SLUGS } from '../../core/page/slug'
import { Problem } from '../../core/problem'
import { respond } from '../../core/http/respond'
import { send } from '../services/delivery/send'
import { useTrough } from '../utils/trough'

/** Everything that is not Trough's own is a page of the site, or nothing. */
function slugOf(path: string): string | undefined {
  const [first = '', ...rest] = path.split('?')[0]!.slice(1).split('/')
  if (RESERVED_SLUGS.includes(first) || first.startsWith('_')) return undefined
  return [first, ...rest].join('/')
}

async function sendPage(event: H3Event, slug: string): Promise<void> {
  const { published } = await useTrough()
  const { req, res } = event.node
  if (req.method !== 'GET' && req.method !== 'HEAD') {
    res.setHeader('Allow', 'GET, HEAD')
    throw new Problem(405, 'A page can only be read.', 'Use GET.')
  }
  const accept = req.headers['accept-encoding']
  const page = await published.find(slug, typeof accept === 'string' ? accept : undefined)
  if (!page) throw new Problem(404, 'There is no such page.', 'It may have moved. Start from the first page.')
  const answer = respond(req.method, req.headers, page.representation, () => page.representation.etag.replace(/\W/g, ''))
  await send(res, answer, ({ start, end }) => page.bytes.subarray(start, end))
}

export default defineEventHandler((event) => {
  const slug = slugOf(event.path)
  return slug === undefined ? undefined : sendPage(event, slug)
})
