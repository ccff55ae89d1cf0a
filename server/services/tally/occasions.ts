import type { IncomingMessage } from 'node:http'
import type { Happened } from '../../../core/tally/occasions'
import { isAhead } from '../../../core/tally/purpose'
import type { Visitors } from '../visitorAddress'
import type { DailyTally } from './daily'

/**
 * Says what happened to visitors: nothing of what a browser fetches ahead, asks for without reading (HEAD), or whoever works at the desk
 * tries.
 */
export function createOccasions(daily: DailyTally, { addressOf }: Visitors, isOwn: (request: IncomingMessage) => false | Promise<boolean>) {
  return {
    /** @param told it is to be known what led there */
    note(request: IncomingMessage, happened: Happened, { told = false } = {}): void {
      const { headers, method } = request
      if (method === 'HEAD' || isAhead(headers)) return
      const from = told ? { referer: headers.referer, host: headers.host } : {}
      const see = () => daily.see({ ...happened, ...from, address: addressOf(request), userAgent: headers['user-agent'] })
      const own = isOwn(request)
      if (own) void own.then(is => is || see(), see)
      else see()
    },
  }
}
export type Occasions = ReturnType<typeof createOccasions>
