import type { IncomingMessage, ServerResponse } from 'node:http'
import { readSeeQuery } from '../../core/see/seeAddress'
import type { Trough } from '../trough'
import { decodedName } from './file'
import { inTurn, sendMade } from './made'

const SEE = '/see/'

/** Whether a path is that of a page that shows what is in a file, `/see/<handle>`. */
export const isSeePath = (path: string): boolean => path.startsWith(SEE)

/** Whether there is, or was, a file to look at at such a path. */
export const seeIsAt = ({ seeing }: Trough, request: IncomingMessage, path: string): Promise<boolean> =>
  seeing.isAt(request, decodedName(path.slice(SEE.length)))

/** `/see/<handle>`: what is in a file, before it is taken. */
export async function answerSee(
  trough: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  search: string,
): Promise<void> {
  const query = readSeeQuery(new URLSearchParams(search))
  const seen = await inTurn(trough, request, () => trough.seeing.find(request, decodedName(path.slice(SEE.length)), query))
  if ('moved' in seen) {
    // 308 lasts and keeps the method (RFC 9110, section 15.4.9).
    response
      .writeHead(308, { 'Location': `${seen.moved}${search && `?${search}`}`, 'Cache-Control': 'no-cache', 'Content-Length': 0 })
      .end()
    return
  }
  await sendMade(request, response, seen.made, seen.own)
  trough.occasions.note(request, { what: 'looked', of: seen.file, detail: '' })
}
