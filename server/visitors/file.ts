import type { IncomingMessage, ServerResponse } from 'node:http'
import type { DeliveryQuery } from '../services/delivery/delivery'
import type { Trough } from '../trough'

const PLAIN: DeliveryQuery = { save: false, edition: null, at: null }

function queryOf(search: string): DeliveryQuery {
  if (!search) return PLAIN
  const query = new URLSearchParams(search)
  return { save: query.has('save'), edition: query.get('edition'), at: query.get('at') }
}

/** `/files/<handle>`: the file as it is now, or where it moved to. */
export async function answerFile({ delivery }: Trough, request: IncomingMessage, response: ServerResponse, handle: string, search: string): Promise<void> {
  const moved = await delivery.deliver(request, response, handle, queryOf(search))
  if (moved !== undefined) {
    // 308 keeps the method, and lasts (RFC 9110, section 15.4.9).
    const location = `/files/${moved}${search && `?${search}`}`
    response.writeHead(308, { 'Location': location, 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
  }
}
