import '#nitro-internal-pollyfills'
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import type { Duplex } from 'node:stream'
import { toNodeListener } from 'h3'
import { useNitroApp } from 'nitropack/runtime'
import { listenOn, ownAddress } from './environment'
import { log } from './log'
import { watchStanding } from './standing'
import type { Trough } from './trough'
import { useTrough } from './utils/trough'
import { answerAtOnce } from './visitors/atOnce'

/** Milliseconds in which a client has to have sent the fields of its request (OWASP, slow HTTP attacks). */
const FIELDS_WITHIN = 15_000
/**
 * Milliseconds in which the next request of a connection may come: longer than servers in front keep theirs (nginx, `keepalive_timeout` of
 * an upstream: a minute), or one would be sent into a connection that is just being closed, and what cannot be sent again be lost.
 */
const NEXT_WITHIN = 65_000
/** Milliseconds a stop waits for answers under way, so that visitors are let in again soon. */
const STOP_WITHIN = 5_000

const METHODS = 'GET, HEAD, POST, PUT, PATCH, DELETE, OPTIONS'
const KNOWN = new Set(METHODS.split(', '))

const nitro = useNitroApp()
const answer = toNodeListener(nitro.h3App)

function refuse(response: ServerResponse, status: number, text: string, fields: Record<string, string> = {}): void {
  response
    .writeHead(status, {
      'Content-Type': 'text/plain; charset=utf-8',
      'Cache-Control': 'no-store',
      'X-Content-Type-Options': 'nosniff',
      ...fields,
    })
    .end(text)
}

let trough: Trough | undefined
void useTrough().then(
  opened => (trough = opened),
  // Each request says that it cannot be opened.
  () => undefined,
)

function isAnsweredAtOnce(request: IncomingMessage, response: ServerResponse): boolean {
  try {
    return trough !== undefined && answerAtOnce(trough, request, response)
  } catch (error) {
    log.error({ err: error, url: request.url }, 'could not be answered at once')
    // The longer way says so where nothing has been said yet.
    if (response.headersSent) response.destroy()
    return response.headersSent
  }
}

/** What is settled before anybody looks at the address: RFC 9110, 9.1 and 9.3.7, and RFC 9112, 3.2. */
function take(request: IncomingMessage, response: ServerResponse): void {
  if (!KNOWN.has(request.method!)) return refuse(response, 501, `Use one of ${METHODS}.`, { Allow: METHODS })
  if (request.url === '*') return void response.writeHead(204, { 'Allow': METHODS, 'Content-Length': 0 }).end()
  watch(request, response)
  if (!isAnsweredAtOnce(request, response)) answer(request, response)
}

/** What the parser could not read: an unknown method is one that is not implemented, anything else is not HTTP. */
function answerBroken(error: NodeJS.ErrnoException, socket: Duplex): void {
  if (error.code === 'ECONNRESET' || !socket.writable) return void socket.destroy()
  const status =
    error.code === 'HPE_INVALID_METHOD'
      ? '501 Not Implemented'
      : error.code === 'HPE_HEADER_OVERFLOW'
        ? '431 Request Header Fields Too Large'
        : error.code === 'ERR_HTTP_REQUEST_TIMEOUT'
          ? '408 Request Timeout'
          : '400 Bad Request'
  socket.end(`HTTP/1.1 ${status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n`)
}

const server = createServer(
  { headersTimeout: FIELDS_WITHIN, requestTimeout: 0, keepAliveTimeout: NEXT_WITHIN, connectionsCheckingInterval: 5_000 },
  take,
)
const watch = watchStanding(server)
server.on('clientError', answerBroken)

server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `\nTrough cannot start. Another program listens at ${ownAddress(process.env)} already. Stop it, or set PORT to another number.\n`
      : `\nTrough cannot start. ${error.message}\n`,
  )
  process.exit(1)
})
try {
  server.listen(listenOn(process.env, process.pid), () => console.log(`Listening on ${ownAddress(process.env)}`))
} catch (error) {
  console.error(`\nTrough cannot start. ${(error as Error).message}\n`)
  process.exit(1)
}

let stopping = false
async function stop(): Promise<void> {
  if (stopping) return
  stopping = true
  void useTrough().then(
    ({ news }) => news.close(),
    () => undefined,
  )
  server.close()
  server.closeIdleConnections()
  // Downloads go on where they were: they are resumed (RFC 9110, section 14).
  setTimeout(() => server.closeAllConnections(), STOP_WITHIN).unref()
  const closed = new Promise<void>(resolve => server.once('close', resolve))
  await Promise.race([closed, new Promise(resolve => setTimeout(resolve, STOP_WITHIN))])
  await nitro.hooks.callHook('close')
  process.exit(0)
}
for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.on(
    signal,
    () =>
      void stop().catch((error: unknown) => {
        log.fatal({ err: error }, 'could not be closed cleanly')
        process.exit(1)
      }),
  )
}
process.on('unhandledRejection', error => log.error({ err: error }, 'something failed that nobody waited for'))
process.on('uncaughtException', error => log.error({ err: error }, 'something failed that nobody waited for'))
