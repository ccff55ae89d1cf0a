import type { IncomingMessage, ServerResponse } from 'node:http'
import type { H3Event } from 'h3'
import { logsRequests } from './environment'
import { log } from './log'
import type { Metrics, RequestKind } from './services/watch/metrics'
import { isForVisitors } from './visitors/audience'
import { isFilePath } from './visitors/file'

const started = Date.now().toString(36)
let count = 0
const ids = new WeakMap<IncomingMessage, string>()

/**
 * An identity for a request, by which its lines in the log are found; the front server's own where it gives one. Made when it is first
 * asked for: few are.
 */
export function requestId(request: IncomingMessage): string {
  const known = ids.get(request)
  if (known) return known
  const given = request.headers['x-request-id']
  const id = typeof given === 'string' && /^[\w.-]{6,64}$/.test(given) ? given : `${started}-${(++count).toString(36)}`
  ids.set(request, id)
  return id
}

const kindOf = (path: string): RequestKind =>
  isFilePath(path) ? 'file' : path.startsWith('/api/') ? 'api' : isForVisitors(path) ? 'page' : 'desk'

let logging: boolean | undefined
const isLogging = () => (logging ??= logsRequests(process.env))

/** Begins to measure a request. @returns notes what its answer was, which has ended or was handed over whole */
function measure(request: IncomingMessage, response: ServerResponse, metrics: () => Metrics | undefined): () => void {
  const { socket, url = '', method } = request
  const began = performance.now()
  const before = socket.bytesWritten
  return () => {
    const [milliseconds, bytes] = [performance.now() - began, socket.bytesWritten - before]
    // An answer that goes on for as long as a desk is open measures nothing.
    if (response.getHeader('content-type') !== 'text/event-stream')
      metrics()?.observe(kindOf(url), response.statusCode, bytes, milliseconds / 1000)
    if (isLogging())
      log.info(
        {
          request: requestId(request),
          method,
          url,
          status: response.statusCode,
          bytes,
          milliseconds: Math.round(milliseconds * 10) / 10,
          whole: response.writableFinished,
        },
        'answered',
      )
  }
}

/** Measures a request until its answer has ended. */
export function watchRequest({ node: { req, res } }: H3Event, metrics: () => Metrics | undefined): void {
  res.on('close', measure(req, res, metrics))
}

/**
 * Measures a request that may be answered in this turn of the loop.
 *
 * @returns to be called once it was: what it took to hand the answer over is all that is left to measure. Whoever reads the log wants to
 * know whether it arrived, though, and an answer that stands behind another on its connection has not been handed over yet
 */
export function measureAtOnce(request: IncomingMessage, response: ServerResponse, metrics: Metrics): () => void {
  const ended = measure(request, response, () => metrics)
  return () => void (isLogging() || !response.socket ? response.on('close', ended) : ended())
}
