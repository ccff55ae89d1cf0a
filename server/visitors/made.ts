import type { IncomingMessage, ServerResponse } from 'node:http'
import { headerOf } from '../../core/http/conditional'
import { respond } from '../../core/http/respond'
import { send } from '../services/delivery/send'
import { Turns } from '../services/delivery/turns'
import type { Made } from '../services/published/published'
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

/** Sends a page that Trough itself made, in the encoding the client likes best. */
export async function sendMade(request: IncomingMessage, response: ServerResponse, made: Made): Promise<void> {
  const { bytes, representation } = await made(headerOf(request.headers, 'accept-encoding'))
  const answer = respond(request.method!, request.headers, representation, () => representation.etag.replace(/\W/g, ''))
  await send(response, answer, ({ start, end }) => bytes.subarray(start, end))
}
