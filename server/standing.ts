import type { IncomingMessage, Server, ServerResponse } from 'node:http'
import type { Socket } from 'node:net'

/** Milliseconds for which a request's body may stand still; an answer that takes nothing is ended after twice as long. */
const STANDS = 30_000

interface UnderWay {
  request: IncomingMessage
  response: ServerResponse
  /** bytes that had left when it was first seen to stand */ stoodAt?: number
}

/**
 * Ends connections that stand still: a body that does not go on, an answer of which nothing is taken. However slow
 * something is, what moves counts; a connection that waits for this side is left alone.
 *
 * @returns is told of each request
 */
export function watchStanding(server: Server, stands = STANDS): (request: IncomingMessage, response: ServerResponse) => void {
  const underWay = new WeakMap<Socket, UnderWay>()
  server.setTimeout(stands, socket => {
    const now = underWay.get(socket)
    if (!now || now.response.writableFinished) return socket.destroy()
    const { request, response } = now
    if (!request.complete) {
      if (!response.headersSent)
        response
          .writeHead(408, { 'Connection': 'close', 'Content-Type': 'text/plain; charset=utf-8' })
          .end('The rest of the request did not come.')
      request.destroy()
      return
    }
    // Nothing is waiting to be taken: it is this side that is slow.
    if (!socket.writableLength) return
    const left = socket.bytesWritten - socket.writableLength
    if (now.stoodAt === left) return socket.destroy()
    now.stoodAt = left
    socket.setTimeout(stands)
  })
  return (request, response) => void underWay.set(request.socket, { request, response })
}
