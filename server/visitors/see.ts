import type { IncomingMessage, ServerResponse } from 'node:http'
import { headerOf } from '../../core/http/conditional'
import { chooseEncoding } from '../../core/http/encoding'
import { respond } from '../../core/http/respond'
import { readSeeQuery } from '../../core/see/seeAddress'
import { send } from '../services/delivery/send'
import { Turns } from '../services/delivery/turns'
import type { Trough } from '../trough'
import { decodedName } from './file'

const SEE = '/see/'

/** Whether a path is that of a page that shows what is in a file, `/see/<handle>`. */
export const isSeePath = (path: string): boolean => path.startsWith(SEE)

/** Whether there is, or was, a file to look at at such a path. */
export const seeIsAt = ({ seeing }: Trough, path: string): Promise<boolean> => seeing.isAt(decodedName(path.slice(SEE.length)))

/** Pages that one address has drawn or searched at once: drawing takes a machine's time, and others wait for it, too. */
const AT_ONCE = 4
const turns = new Turns(AT_ONCE)

/** Does what may have to be drawn in a turn of its visitor's. */
export async function inTurn<T>({ visitors }: Trough, request: IncomingMessage, work: () => Promise<T>): Promise<T> {
  const giveBack = await turns.take(visitors.addressOf(request))
  try {
    return await work()
  } finally {
    giveBack()
  }
}

/** `/see/<handle>`: what is in a file, before it is taken. */
export async function answerSee(
  trough: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  search: string,
): Promise<void> {
  const query = readSeeQuery(new URLSearchParams(search))
  const seen = await inTurn(trough, request, () => trough.seeing.find(decodedName(path.slice(SEE.length)), query))
  if ('moved' in seen) {
    // 308 lasts and keeps the method (RFC 9110, section 15.4.9).
    response
      .writeHead(308, { 'Location': `${seen.moved}${search && `?${search}`}`, 'Cache-Control': 'no-cache', 'Content-Length': 0 })
      .end()
    return
  }
  const { bytes, representation } = seen[chooseEncoding(headerOf(request.headers, 'accept-encoding'))]
  const answer = respond(request.method!, request.headers, representation, () => representation.etag.replace(/\W/g, ''))
  await send(response, answer, ({ start, end }) => bytes.subarray(start, end))
}
