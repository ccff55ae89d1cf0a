import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible'
import { networkOf } from '../../../core/http/forwarded'
import { VisitorProblem } from '../../../core/language/visitorProblem'

const HOUR = 60 * 60

/** What one network sends, and what one address is sent, within so many seconds: nobody is written to without end. */
const LIMITS = {
  /** addresses left from one network, which may be a whole office's */
  left: { points: 40, duration: HOUR },
  /** terms accepted from one */
  accepted: { points: 600, duration: HOUR },
  /** messages to one address */
  written: { points: 4, duration: HOUR },
}

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
    form: (kind: 'left' | 'accepted', address: string): Promise<void> => take(kind, networkOf(address)),
    /** Counts a message that is written because somebody left an address. @throws VisitorProblem 429 */
    message: (email: string): Promise<void> => take('written', email),
  }
}
export type FormLimits = ReturnType<typeof createFormLimits>
