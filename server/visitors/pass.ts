import { isIP } from 'node:net'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { GateClosed } from '../../core/gate/closed'
import { headerOf } from '../../core/http/conditional'
import { VisitorProblem } from '../../core/language/visitorProblem'
import type { Comer, Entered } from '../services/entering/coming'
import { log } from '../log'
import type { Trough } from '../trough'
import { formOf } from '../utils/request'
import { decodedName } from './file'

const PASS = '/pass/'
const CONFIRM = '/pass/confirm/'
const COME_IN = '/pass/come-in/'
const NO_MORE = '/pass/no-more/'
const FOR = '/for/'

/** Whether a path is that of a gate's form, of an address to be confirmed, or of a personal link. */
export const isPassPath = (path: string): boolean => path.startsWith(PASS) || path.startsWith(FOR)

/** Bytes of a form with every field filled in. */
const MOST = 128_000

/** Sends a page that is this visitor's alone, or sends them on (RFC 9110, section 15.4.4: what comes next is asked for by GET). */
export async function sendEntered(request: IncomingMessage, response: ServerResponse, entered: Entered): Promise<void> {
  const always = { 'Cache-Control': 'private, no-store', 'X-Robots-Tag': 'noindex' }
  if ('to' in entered) {
    response
      .writeHead(303, { ...always, 'Location': entered.to, ...(entered.cookie && { 'Set-Cookie': entered.cookie }), 'Content-Length': 0 })
      .end()
    return
  }
  const { bytes, representation } = await entered.made(headerOf(request.headers, 'accept-encoding'))
  const { 'ETag': _, 'Accept-Ranges': __, ...fields } = representation.headers
  response.writeHead(entered.status, { ...fields, ...always })
  response.end(request.method === 'HEAD' ? undefined : bytes)
}

/** Answers somebody who has not passed the gate of what they want: with what it asks, at this very address. */
export async function answerClosed(
  { entering }: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  closed: GateClosed,
): Promise<void> {
  // A form that was sent is not sent anew by going on.
  const to = request.method === 'POST' ? request.url!.split('?')[0]! : request.url!
  await sendEntered(request, response, await entering.closed(closed, to))
}

/**
 * Where links in messages lead while the site has no address of its own: only to this machine or a number, since whoever asks may name any
 * host (OWASP, Host header injection).
 */
function originOf(host: string | undefined, secure: boolean): string {
  const origin = `${secure ? 'https' : 'http'}://${host ?? ''}`
  const name = URL.canParse(origin) ? new URL(origin).hostname.replace(/^\[|\]$/g, '') : ''
  return name === 'localhost' || isIP(name) ? origin : ''
}

/** Who somebody is that fills in a form. */
export function comerOf({ visitors }: Trough, request: IncomingMessage): Comer {
  const secure = visitors.isSecure(request)
  return { address: visitors.addressOf(request), secure, origin: originOf(headerOf(request.headers, 'host'), secure) }
}

async function enter(trough: Trough, request: IncomingMessage, path: string, search: string): Promise<Entered> {
  const { entering, personalLinks, site } = trough
  const sent = request.method === 'POST'
  const comer = comerOf(trough, request)
  if (path.startsWith(FOR)) {
    const token = path.slice(FOR.length)
    return sent ? personalLinks.take(token, comer) : personalLinks.show(token)
  }
  if (path.startsWith(CONFIRM)) {
    const token = path.slice(CONFIRM.length)
    return sent ? entering.confirm(token, comer) : entering.confirming(token)
  }
  if (path.startsWith(COME_IN)) {
    const token = path.slice(COME_IN.length)
    return sent ? entering.comeIn(token, await formOf(request, MOST), comer) : entering.comingIn(token)
  }
  if (path.startsWith(NO_MORE)) {
    const sealed = decodedName(path.slice(NO_MORE.length))
    return sent ? entering.noMore(sealed) : entering.askingNoMore(sealed)
  }
  const gate = path.slice(PASS.length)
  if (!sent) return entering.show(gate, new URLSearchParams(search).get('to'))
  if (!comer.origin && !(await site.get()).address) {
    log.error('somebody left an address at a gate, and no link can be sent: the site has no address of its own. Set it in Setup')
    throw new VisitorProblem(503, 'later')
  }
  return entering.enter(gate, await formOf(request, MOST), comer)
}

/** `/pass/…` and `/for/…`: ways through gates. */
export const answerPass = async (
  trough: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  search: string,
): Promise<void> => sendEntered(request, response, await enter(trough, request, path, search))
