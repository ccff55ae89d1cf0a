import type { IncomingMessage, ServerResponse } from 'node:http'
import { VisitorProblem } from '../../core/language/visitorProblem'
import { pageHref } from '../../core/page/href'
import { headerOf } from '../../core/http/conditional'
import { readyFields, respond, withFields, type Representation } from '../../core/http/respond'
import { send, sendAtOnce } from '../services/delivery/send'
import type { Trough } from '../trough'

/** What is said of a slug at which no page is live. */
export const noPage = () => new VisitorProblem(404, 'noPage')

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

const acceptOf = ({ headers }: IncomingMessage) => headerOf(headers, 'accept-encoding')
/** It cannot occur in the bytes, which hold no hash of themselves. */
const boundaryOf = ({ etag }: Representation) => etag.replace(/\W/g, '')

/**
 * Answers as {@link answerPage} would, but without a turn of the loop, where all it takes is in memory and it is open to everybody.
 *
 * @returns whether it was answered
 */
export function answerPageAtOnce(
  { knownSlugs, guard, published, occasions }: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  slug: string,
  search: string,
): boolean {
  const place = askedOf(search) ? undefined : knownSlugs.known(slug)
  if (place?.slug !== slug || guard.admitNow(request, place)?.own !== false) return false
  const page = published.known(slug, acceptOf(request))
  if (!page) return false
  const answer = respond(request.method!, request.headers, page.representation, () => boundaryOf(page.representation))
  const [part, ...others] = answer.body
  if (others.length || typeof part === 'string') return false
  const note = () => occasions.note(request, { what: 'seen', of: place.id, detail: '' })
  if (part) sendAtOnce(response, answer, part, page.bytes.subarray(part.start, part.end), note)
  else {
    response.writeHead(answer.status, readyFields(answer.headers)).end()
    note()
  }
  return true
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
  const missing = () => (slug === '' ? new VisitorProblem(404, 'notYet') : noPage())
  const place = await placeAt(trough, slug)
  if (!place || !(await guard.mayKnow(request, place))) throw missing()
  if (place.slug !== slug) {
    // 308 lasts and keeps the method (RFC 9110, section 15.4.9).
    response.writeHead(308, { 'Location': pageHref(place.slug), 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
    return
  }
  const { own, count } = await guard.admit(request, place, missing)
  const page = await published.find(slug, acceptOf(request), askedOf(search))
  if (!page) throw missing()
  const representation = own ? withFields(page.representation, { 'Cache-Control': 'private, no-store' }) : page.representation
  const answer = respond(request.method!, request.headers, representation, () => boundaryOf(representation))
  if (answer.body.length) await count()
  await send(response, answer, ({ start, end }) => page.bytes.subarray(start, end))
  occasions.note(request, { what: 'seen', of: place.id, detail: '' })
}
