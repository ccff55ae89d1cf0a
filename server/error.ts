import { STATUS_CODES, type IncomingMessage, type OutgoingHttpHeaders, type ServerResponse } from 'node:http'
import type { H3Error, H3Event } from 'h3'
import { diskFull, isDiskFull } from '../core/diskFull'
import { headerOf } from '../core/http/conditional'
import { VisitorProblem } from '../core/language/visitorProblem'
import { Problem } from '../core/problem'
import { Damaged } from './services/delivery/filler'
import { PAGE_HEADERS } from './services/published/packed'
import type { Message } from './services/published/published'
import { useTrough } from './utils/trough'
import { requestId } from './watch'
import { log } from './log'

async function toProblem(error: H3Error): Promise<Problem> {
  if (error.cause instanceof Problem) return error.cause
  if (isDiskFull(error))
    return diskFull(
      await useTrough().then(
        trough => trough.folder,
        () => undefined,
      ),
    )
  // RFC 9110, section 15.6.4: it is thought to be for a while, until its owner has put it right.
  if (error.cause instanceof Damaged) return new VisitorProblem(503, 'later', { retryAfter: 3600 })
  if (!error.unhandled && error.statusCode < 500) {
    return new Problem(error.statusCode, STATUS_CODES[error.statusCode] ?? 'That did not work.', 'Check the address and try again.')
  }
  return new Problem(500, 'Something went wrong here.', 'Try again; if it stays, look at what the server printed.')
}

/** Errors for programs as problem documents (RFC 9457), for visitors as a page of the site. */
export default async function answerError(error: H3Error, event: H3Event): Promise<void> {
  const problem = await toProblem(error)
  if (problem.status >= 500)
    log.error({ err: error.cause ?? error, request: requestId(event.node.req), method: event.method, url: event.path }, 'a request failed')
  await answerProblem(problem, event)
}

const MESSAGE_HEADERS = { ...PAGE_HEADERS, 'Content-Type': 'text/html; charset=utf-8', 'Vary': 'Accept-Encoding' }

/** Whether something follows the fields of a request (RFC 9112, section 6.3) that has not been read. */
export const isBodyLeft = ({ complete, headers }: IncomingMessage) =>
  !complete && (headers['transfer-encoding'] !== undefined || Number(headers['content-length'] ?? 0) > 0)

/** All fields together: set one by one they are the dearest part of saying that there is nothing. */
function fieldsOf(problem: Problem, request: IncomingMessage): OutgoingHttpHeaders {
  const fields: OutgoingHttpHeaders = { 'Cache-Control': 'no-store', 'X-Request-Id': requestId(request) }
  const { retryAfter } = problem.extra
  if (retryAfter) fields['Retry-After'] = String(retryAfter)
  // What is left of the body is not waited for.
  if (isBodyLeft(request)) fields.Connection = 'close'
  return fields
}

/** Sends the page that tells a visitor of a problem. */
export function sendMessage(problem: Problem, request: IncomingMessage, response: ServerResponse, { bytes, encoding }: Message): void {
  const fields = fieldsOf(problem, request)
  Object.assign(fields, MESSAGE_HEADERS)
  fields['Content-Length'] = bytes.length
  if (encoding !== 'identity') fields['Content-Encoding'] = encoding
  response.writeHead(problem.status, fields)
  response.end(request.method === 'HEAD' ? undefined : bytes)
}

/** Says what is wrong, and what to do. */
export async function answerProblem(problem: Problem, event: H3Event): Promise<void> {
  const { req, res } = event.node
  if (res.headersSent) {
    // The answer has begun: cutting it off is the only way left to say that it is not whole.
    res.destroy()
    return
  }
  if (req.url!.startsWith('/api')) {
    res.writeHead(problem.status, { ...fieldsOf(problem, req), 'Content-Type': 'application/problem+json' })
    res.end(JSON.stringify({ status: problem.status, title: problem.title, detail: problem.detail, ...problem.extra }))
    return
  }
  const message = await useTrough()
    .then(({ published }) => published.message(problem, headerOf(req.headers, 'accept-encoding')))
    .catch((): Message => ({ bytes: Buffer.from(`<!DOCTYPE html><title>${problem.title}</title>`), encoding: 'identity' }))
  sendMessage(problem, req, res, message)
}
