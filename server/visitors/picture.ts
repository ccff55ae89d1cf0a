import type { IncomingMessage, ServerResponse } from 'node:http'
import { respond } from '../../core/http/respond'
import { send } from '../services/delivery/send'
import { inTurn } from './made'
import type { Trough } from '../trough'

/** Whether a picture is somebody's alone. Whoever works at the desk sees what stands on its pages. @throws Problem 404 for strangers */
const isOwn = ({ pictures, sessions }: Trough, request: IncomingMessage, handle: string, inside: boolean): Promise<boolean> =>
  pictures.isOwnTo(request, handle, inside).catch(async (error: unknown) => {
    if (await sessions.isSignedIn(request.headers.cookie)) return true
    throw error
  })

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
  const own = await isOwn(trough, request, handle, page !== undefined)
  const find = () => trough.pictures.find(handle, Number(query.get('width')), { jpeg: query.has('jpeg'), page })
  const { bytes, representation } = await (page ? inTurn(trough, request, find) : find())
  const answer = respond(request.method!, request.headers, representation, () => representation.etag.replace(/\W/g, ''))
  answer.headers = {
    ...answer.headers,
    'Cache-Control': own ? 'private, no-cache' : query.has('v') ? 'public, max-age=31536000, immutable' : 'no-cache',
  }
  await send(response, answer, ({ start, end }) => bytes.subarray(start, end))
}
