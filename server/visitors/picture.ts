import type { IncomingMessage, ServerResponse } from 'node:http'
import { respond } from '../../core/http/respond'
import { send } from '../services/delivery/send'
import type { Trough } from '../trough'

/** `/pictures/<handle>?width=`: what shows a file on a page. An address that names its version never gives anything else. */
export async function answerPicture(
  { pictures }: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  handle: string,
  search: string,
): Promise<void> {
  const query = new URLSearchParams(search)
  const { bytes, representation } = await pictures.find(handle, Number(query.get('width')), { jpeg: query.has('jpeg') })
  const answer = respond(request.method!, request.headers, representation, () => representation.etag.replace(/\W/g, ''))
  answer.headers = { ...answer.headers, 'Cache-Control': query.has('v') ? 'public, max-age=31536000, immutable' : 'no-cache' }
  await send(response, answer, ({ start, end }) => bytes.subarray(start, end))
}
