import type { H3Event } from 'h3'
import { logsRequests } from './environment'
import { log } from './log'
import type { Metrics, RequestKind } from './services/watch/metrics'
import { isForVisitors } from './visitors/audience'
import { isFilePath } from './visitors/file'

const started = Date.now().toString(36)
let count = 0

/**
 * An identity for a request, by which its lines in the log are found; the front server's own where it gives one. Made when it is first
 * asked for: few are.
 */
export function requestId({ context, node: { req } }: H3Event): string {
  const given = req.headers['x-request-id']
  return (context.requestId ??= typeof given === 'string' && /^[\w.-]{6,64}$/.test(given) ? given : `${started}-${(++count).toString(36)}`)
}

const kindOf = (path: string): RequestKind =>
  isFilePath(path) ? 'file' : path.startsWith('/api/') ? 'api' : isForVisitors(path) ? 'page' : 'desk'

let logging: boolean | undefined

/** Measures a request until its answer has ended. */
export function watchRequest(event: H3Event, metrics: () => Metrics | undefined): void {
  const { req, res } = event.node
  const { socket, url = '', method } = req
  const began = performance.now()
  const before = socket.bytesWritten
  res.on('close', () => {
    const [milliseconds, bytes] = [performance.now() - began, socket.bytesWritten - before]
    // An answer that goes on for as long as a desk is open measures nothing.
    if (res.getHeader('content-type') !== 'text/event-stream') metrics()?.observe(kindOf(url), res.statusCode, bytes, milliseconds / 1000)
    logging ??= logsRequests(process.env)
    if (logging)
      log.info(
        {
          request: requestId(event),
          method,
          url,
          status: res.statusCode,
          bytes,
          milliseconds: Math.round(milliseconds * 10) / 10,
          whole: res.writableFinished,
        },
        'answered',
      )
  })
}
