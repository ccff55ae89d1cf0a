import type { IncomingMessage, ServerResponse } from 'node:http'
import type { Trough } from '../trough'

/** `/files/<handle>`: the file as it is now, or where it moved to. */
export async function answerFile({ delivery }: Trough, request: IncomingMessage, response: ServerResponse, handle: string, search: string): Promise<void> {
  const query = new URLSearchParams(search)
  const moved = await delivery.deliver(request, response, handle, {
    save: query.has('save'), edition: query.get('edition'), at: query.get('at'),
  })
  if (moved !== undefined) {
    // 308 keeps the method, and lasts (RFC 9110, section 15.4.9).
    const location = `/files/${moved}${search && `?${search}`}`
    response.writeHead(308, { 'Location': location, 'Cache-Control': 'no-cache', 'Content-Length': 0 }).end()
  }
}
