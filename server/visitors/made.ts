import type { IncomingMessage, ServerResponse } from 'node:http'
import { headerOf } from '../../core/http/conditional'
import { respond, withFields } from '../../core/http/respond'
import { send } from '../services/delivery/send'
import { Turns } from '../services/delivery/turns'
import type { Made } from '../services/published/packed'
import type { Trough } from '../trough'

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

/**
 * Sends a page in the encoding the client likes best.
 *
 * @param own what is on it is this visitor's alone: nothing keeps it
 */
export async function sendMade(request: IncomingMessage, response: ServerResponse, made: Made, own = false): Promise<void> {
  const { bytes, representation: common } = await made(headerOf(request.headers, 'accept-encoding'))
  const representation = own ? withFields(common, { 'Cache-Control': 'private, no-store' }) : common
  const answer = respond(request.method!, request.headers, representation, () => representation.etag.replace(/\W/g, ''))
  await send(response, answer, ({ start, end }) => bytes.subarray(start, end))
}
