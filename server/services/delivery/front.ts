import { randomBytes } from 'node:crypto'
import { createSocket, type Socket } from 'node:dgram'
import { once } from 'node:events'
import type { ServerResponse } from 'node:http'
import { LRUCache } from 'lru-cache'
import { headerOf, type RequestHeaders } from '../../../core/http/conditional'
import type { ByteRange } from '../../../core/http/range'
import type { Answer } from '../../../core/http/respond'
import type { LocalStore } from '../../store/local'

/** Deliveries the front server has in hand, at the most; the oldest are no longer counted. */
const MOST_IN_HAND = 100_000
const DAY = 24 * 60 * 60 * 1000

export interface FrontOptions {
  /** the address under which the front server finds the store's files, such as `/_trough-store/` */
  prefix: string
  /** UDP port on this machine to which it reports what it has sent */
  port: number
}

/** What the front server has sent. */
export type Report = (delivered: ByteRange[], unsure?: ByteRange) => void

/** `<delivery> <status> <body bytes> <Content-Range>`, as the configuration in docs/nginx.md writes it. */
const LINE = /\b([0-9a-f]{24}) (200|206) (\d+) (?:-|bytes (\d+)-\d+\/\d+)/

/**
 * Hands stored bytes over to a front server (`X-Accel-Redirect`, nginx), which sends them from the disk itself.
 * It reports each delivery in a line of its log, so that counting stays right: what was broken off is known as such.
 */
export function createFront({ prefix, port }: FrontOptions, store: Pick<LocalStore, 'placeOf'>) {
  const inHand = new LRUCache<string, { length: number; report: Report }>({ max: MOST_IN_HAND, ttl: DAY })
  let socket: Socket | undefined

  function take(line: string): void {
    const [, delivery, , sent, start] = LINE.exec(line) ?? []
    const known = delivery === undefined ? undefined : inHand.get(delivery)
    if (!known) return
    inHand.delete(delivery!)
    const from = Number(start ?? 0)
    const stretch = { start: from, end: from + Number(sent) }
    // What the system had taken of a delivery that was broken off may not all have arrived.
    if (Number(sent) >= known.length) known.report([stretch])
    else known.report([], stretch)
  }

  return {
    /** Listens for the front server's reports. */
    async open(): Promise<void> {
      socket = createSocket('udp4').on('message', message => take(message.toString('latin1')))
      socket.bind(port, '127.0.0.1')
      await once(socket, 'listening')
    },

    /**
     * Whether the front server answers it as RFC 9110 asks: whole files and single ranges. Conditions that only
     * the validators can decide have been decided, except those it would decide again without knowing them.
     */
    canTake: (request: RequestHeaders, { status, body }: Answer): boolean =>
      (status === 200 || status === 206) &&
      body.length === 1 &&
      headerOf(request, 'if-match') === undefined &&
      headerOf(request, 'if-unmodified-since') === undefined,

    /** Hands stored bytes over. */
    hand(response: ServerResponse, { headers, body }: Answer, sha256: string, report: Report): void {
      const delivery = randomBytes(12).toString('hex')
      const [range] = body as [ByteRange]
      inHand.set(delivery, { length: range.end - range.start, report })
      const { 'Content-Length': _, 'Content-Range': __, 'Accept-Ranges': ___, ...rest } = headers
      response
        .writeHead(200, { ...rest, 'X-Accel-Redirect': prefix + store.placeOf(sha256), 'X-Trough-Delivery': delivery, 'Content-Length': 0 })
        .end()
    },

    close(): void {
      socket?.close()
    },
  }
}
export type Front = ReturnType<typeof createFront>
