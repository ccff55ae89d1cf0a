import type { IncomingMessage, ServerResponse } from 'node:http'
import type { DeliveryQuery } from '../services/delivery/delivery'
import type { Trough } from '../trough'

const PLAIN: DeliveryQuery = { save: false, edition: null, at: null, from: null }

function queryOf(search: string): DeliveryQuery {
  if (!search) return PLAIN
  const query = new URLSearchParams(search)
  return { save: query.has('save'), edition: query.get('edition'), at: query.get('at'), from: query.get('from') }
}

const FILES = '/files/'
const TO = '/to/'

/** Whether a path is a file's, `/files/<handle>`, or a signpost's, `/to/<name>`. */
export const isFilePath = (path: string): boolean => path.startsWith(FILES) || path.startsWith(TO)

/** A name as it was given out: percent-encoding undone where it is UTF-8, letters in one form. */
export function decodedName(text: string): string {
  if (!text.includes('%')) return text
  try {
    return decodeURIComponent(text).normalize('NFC')
  } catch {
    return text
  }
}

/** What such a path names. */
function namedBy(path: string): [name: string, signpost: boolean] {
  const signpost = path.startsWith(TO)
  return [decodedName(path.slice(signpost ? TO.length : FILES.length)), signpost]
}

/** Whether there is, or was, something at such a path. */
export async function fileIsAt({ delivery }: Trough, request: IncomingMessage, path: string): Promise<boolean> {
  const [name, signpost] = namedBy(path)
  return delivery.isAt(request, name, signpost)
}

/** Answers from memory, if it can; see `deliverAtOnce` of the delivery. */
export function answerFileAtOnce(
  { delivery }: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  search: string,
): boolean {
  const [name, signpost] = namedBy(path)
  return delivery.deliverAtOnce(request, response, name, queryOf(search), signpost)
}

/** The file as it is now, or where its address moved to. */
export async function answerFile(
  { delivery }: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  search: string,
): Promise<void> {
  const [name, signpost] = namedBy(path)
  const moved = await delivery.deliver(request, response, name, queryOf(search), signpost)
  if (moved !== undefined) {
    // 308 keeps the method, and lasts (RFC 9110, section 15.4.9).
    const location = `${moved}${search && `?${search}`}`
    response.writeHead(308, { 'Location': location, 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
  }
}
