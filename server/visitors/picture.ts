import type { IncomingMessage, ServerResponse } from 'node:http'
import { respond } from '../../core/http/respond'
import { send } from '../services/delivery/send'
import { inTurn } from './made'
import type { Trough } from '../trough'

/**
 * `/pictures/<handle>?width=`: what shows a file on a page, or with `&page=` one of its own pages. An address that
 * names its version never gives anything else.
 */
export async function answerPicture(
  trough: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  handle: string,
  search: string,
): Promise<void> {
  const query = new URLSearchParams(search)
  const page = query.has('page') ? Number(query.get('page')) || -1 : undefined
  const find = () => trough.pictures.find(handle, Number(query.get('width')), { jpeg: query.has('jpeg'), page })
  const { bytes, representation } = await (page ? inTurn(trough, request, find) : find())
  const answer = respond(request.method!, request.headers, representation, () => representation.etag.replace(/\W/g, ''))
  answer.headers = { ...answer.headers, 'Cache-Control': query.has('v') ? 'public, max-age=31536000, immutable' : 'no-cache' }
  await send(response, answer, ({ start, end }) => bytes.subarray(start, end))
}
