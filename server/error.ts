import { STATUS_CODES, type OutgoingHttpHeaders } from 'node:http'
import type { H3Error, H3Event } from 'h3'
import { diskFull, isDiskFull } from '../core/diskFull'
import { headerOf } from '../core/http/conditional'
import { VisitorProblem } from '../core/language/visitorProblem'
import { Problem } from '../core/problem'
import { Damaged } from './services/delivery/filler'
import { PAGE_HEADERS } from './services/published/packed'
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

/** Says what is wrong, and what to do. */
export async function answerProblem(problem: Problem, event: H3Event): Promise<void> {
  const { req, res } = event.node
  if (res.headersSent) {
    // The answer has begun: cutting it off is the only way left to say that it is not whole.
    res.destroy()
    return
  }
  // All fields together: set one by one they are the dearest part of saying that there is nothing.
  const fields: OutgoingHttpHeaders = { 'Cache-Control': 'no-store', 'X-Request-Id': requestId(event.node.req) }
  const { retryAfter } = problem.extra
  if (retryAfter) fields['Retry-After'] = String(retryAfter)
  // What is left of the body is not waited for.
  if (!req.complete) fields.Connection = 'close'
  if (req.url!.startsWith('/api')) {
    fields['Content-Type'] = 'application/problem+json'
    res.writeHead(problem.status, fields)
    res.end(JSON.stringify({ status: problem.status, title: problem.title, detail: problem.detail, ...problem.extra }))
    return
  }
  const { bytes, encoding } = await useTrough()
    .then(({ published }) => published.message(problem, headerOf(req.headers, 'accept-encoding')))
    .catch(() => ({ bytes: Buffer.from(`<!DOCTYPE html><title>${problem.title}</title>`), encoding: 'identity' }))
  Object.assign(fields, MESSAGE_HEADERS)
  fields['Content-Length'] = bytes.length
  if (encoding !== 'identity') fields['Content-Encoding'] = encoding
  res.writeHead(problem.status, fields)
  res.end(req.method === 'HEAD' ? undefined : bytes)
}
