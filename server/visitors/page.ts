import type { IncomingMessage, ServerResponse } from 'node:http'
import { VisitorProblem } from '../../core/language/visitorProblem'
import { pageHref } from '../../core/page/href'
import { respond, withFields } from '../../core/http/respond'
import { send } from '../services/delivery/send'
import type { Trough } from '../trough'

/** Whether a page is live at a slug, or was before it moved, that somebody may know of. */
export async function pageIsAt(trough: Trough, request: IncomingMessage, slug: string): Promise<boolean> {
  const { guard } = trough
  const place = await placeAt(trough, slug)
  return place !== undefined && (await guard.mayKnow(request, place))
}

/** Where the page is that is asked for, be it one of its own or an entry's. */
const placeAt = ({ knownSlugs, filling }: Trough, slug: string) => (slug.includes('/') ? filling.place(slug) : knownSlugs.find(slug))

/** What is asked of a list of the page; nothing else in the query makes another page of it. */
function askedOf(search: string): URLSearchParams | undefined {
  if (!search.includes('list=')) return undefined
  const params = new URLSearchParams(search)
  return params.has('list') ? params : undefined
}

/** `/`, `/<slug>` and `/<catalogue>/<entry>`: a published page. */
export async function answerPage(
  trough: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  slug: string,
  search: string,
): Promise<void> {
  const { published, guard, occasions } = trough
  const accept = request.headers['accept-encoding']
  const missing = () => (slug === '' ? new VisitorProblem(404, 'notYet') : new VisitorProblem(404, 'noPage'))
  const place = await placeAt(trough, slug)
  if (!place || !(await guard.mayKnow(request, place))) throw missing()
  if (place.slug !== slug) {
    // 308 lasts and keeps the method (RFC 9110, section 15.4.9).
    response.writeHead(308, { 'Location': pageHref(place.slug), 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
    return
  }
  const { own, count } = await guard.admit(request, place, missing)
  const page = await published.find(slug, typeof accept === 'string' ? accept : undefined, askedOf(search))
  if (!page) throw missing()
  const representation = own ? withFields(page.representation, { 'Cache-Control': 'private, no-store' }) : page.representation
  const answer = respond(request.method!, request.headers, representation, () => representation.etag.replace(/\W/g, ''))
  if (answer.body.length) await count()
  await send(response, answer, ({ start, end }) => page.bytes.subarray(start, end))
  occasions.note(request, { what: 'seen', of: place.id, detail: '' })
}
