import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible'
import { networkOf } from '../../../core/http/forwarded'
import { VisitorProblem } from '../../../core/language/visitorProblem'

const HOUR = 60 * 60

/** Forms that one network sends, and messages that one address is sent, within so many seconds: nobody is written to without end. */
const LIMITS = { network: { points: 30, duration: HOUR }, address: { points: 4, duration: HOUR }, all: { points: 600, duration: HOUR } }

export function createFormLimits() {
  const limiters = Object.fromEntries(
    Object.entries(LIMITS).map(([name, limit]) => [name, new RateLimiterMemory({ keyPrefix: name, ...limit })]),
  ) as Record<keyof typeof LIMITS, RateLimiterMemory>

  async function take(limit: keyof typeof LIMITS, key: string): Promise<void> {
    await limiters[limit].consume(key).catch((refusal: RateLimiterRes) => {
      throw new VisitorProblem(429, 'busy', { retryAfter: Math.max(1, Math.ceil(refusal.msBeforeNext / 1000)) })
    })
  }
  return {
    /** Counts a form. @throws VisitorProblem 429 */
    async form(address: string): Promise<void> {
      await take('network', networkOf(address))
      await take('all', '')
    },
    /** Counts a message that is written because somebody left an address. @throws VisitorProblem 429 */
    message: (email: string): Promise<void> => take('address', email),
  }
}
