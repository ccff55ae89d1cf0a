import type { IncomingMessage } from 'node:http'
import { headerOf } from '../../core/http/conditional'
import { visitorAddress } from '../../core/http/forwarded'
import { log } from '../log'

/**
 * Says of a request where its visitor is: one place for counting, turns, limits and the journal.
 *
 * @param fronts addresses of servers of ours that visitors come through
 */
export function createVisitors(fronts: ReadonlySet<string>) {
  let unnamed: string | undefined

  function noteUnnamed(connection: string): void {
    if (unnamed !== undefined) return
    unnamed = connection
    log.warn(
      { front: connection },
      'requests come through a front server that is not named: every visitor counts as one. Set TROUGH_PROXIES to its address',
    )
  }

  return {
    /** The visitor's address. Asked for before anything is sent: a socket forgets its own when it closes. */
    addressOf({ headers, socket }: IncomingMessage): string {
      const [forwardedFor, forwarded] = [headerOf(headers, 'x-forwarded-for'), headerOf(headers, 'forwarded')]
      const connection = socket.remoteAddress
      if (!fronts.size && (forwardedFor !== undefined || forwarded !== undefined)) noteUnnamed(connection ?? '')
      return visitorAddress({ connection, forwardedFor, forwarded }, fronts)
    },

    /** Whether a request came to the site by https, as far as can be told: a front server says so. */
    isSecure({ headers, socket }: IncomingMessage): boolean {
      const told = headerOf(headers, 'x-forwarded-proto') ?? /proto=(https?)/i.exec(headerOf(headers, 'forwarded') ?? '')?.[1]
      return told?.split(',')[0]!.trim().toLowerCase() === 'https' || 'encrypted' in socket
    },

    /** The address of a front server that sends visitors here without being named; undefined where none was seen. */
    unnamedFront: (): string | undefined => unnamed,
  }
}
export type Visitors = ReturnType<typeof createVisitors>
