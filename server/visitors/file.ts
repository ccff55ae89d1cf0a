import type { IncomingMessage, ServerResponse } from 'node:http'
import type { DeliveryQuery } from '../services/delivery/delivery'
import type { Trough } from '../trough'

const PLAIN: DeliveryQuery = { save: false, edition: null, at: null }

function queryOf(search: string): DeliveryQuery {
  if (!search) return PLAIN
  const query = new URLSearchParams(search)
  return { save: query.has('save'), edition: query.get('edition'), at: query.get('at') }
}

/** `/files/<handle>` and `/to/<signpost>`: the file as it is now, or where the address moved to. */
export async function answerFile({ delivery }: Trough, request: IncomingMessage, response: ServerResponse, name: string, search: string, of: { signpost?: boolean } = {}): Promise<void> {
  const moved = await delivery.deliver(request, response, name, queryOf(search), of)
  if (moved !== undefined) {
    // 308 keeps the method, and lasts (RFC 9110, section 15.4.9).
    const location = `${moved}${search && `?${search}`}`
    response.writeHead(308, { 'Location': location, 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
  }
}
