import type { IncomingMessage, ServerResponse } from 'node:http'
import { VisitorProblem } from '../../core/language/visitorProblem'
import { pageHref } from '../../core/page/href'
import { respond } from '../../core/http/respond'
import { send } from '../services/delivery/send'
import type { Trough } from '../trough'

/** Whether a page is live at a slug, or was before it moved. */
export const pageIsAt = async ({ knownSlugs }: Trough, slug: string): Promise<boolean> => (await knownSlugs.find(slug)) !== undefined

/** `/` and `/<slug>`: a published page. */
export async function answerPage(
  { published, knownSlugs }: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  slug: string,
): Promise<void> {
  const accept = request.headers['accept-encoding']
  const place = await knownSlugs.find(slug)
  if (place !== undefined && place !== slug) {
    // 308 lasts and keeps the method (RFC 9110, section 15.4.9).
    response.writeHead(308, { 'Location': pageHref(place), 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
    return
  }
  const page = place === undefined ? undefined : await published.find(slug, typeof accept === 'string' ? accept : undefined)
  if (!page) {
    throw slug === '' ? new VisitorProblem(404, 'notYet') : new VisitorProblem(404, 'noPage')
  }
  const answer = respond(request.method!, request.headers, page.representation, () => page.representation.etag.replace(/\W/g, ''))
  await send(response, answer, ({ start, end }) => page.bytes.subarray(start, end))
}
