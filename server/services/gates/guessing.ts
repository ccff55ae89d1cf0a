import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible'
import { networkOf } from '../../../core/http/forwarded'
import { VisitorProblem } from '../../../core/language/visitorProblem'

const MINUTE = 60
const HOUR = 60 * MINUTE

/** Wrong passwords within so many seconds, each longer time slower: further ones wait until it is over. */
const LIMITS = {
  /** of an address (IPv6: its network of 64 bits) at one gate */
  place: { points: 5, duration: MINUTE },
  placeLong: { points: 20, duration: HOUR },
  placeLongest: { points: 60, duration: 24 * HOUR },
  /** of all at one gate */
  gate: { points: 100, duration: 10 * MINUTE },
}
type Limit = keyof typeof LIMITS

/** Slows guessing at gates down, the longer it goes on the more. */
export function createGuessing() {
  const limiters = Object.fromEntries(
    Object.entries(LIMITS).map(([name, limit]) => [name, new RateLimiterMemory({ keyPrefix: name, ...limit })]),
  ) as Record<Limit, RateLimiterMemory>

  return {
    /**
     * Counts a guess as wrong before it is looked at, so that many at once do not slip past.
     *
     * @returns takes it back: it was right
     * @throws VisitorProblem 429 with the seconds to wait in `retryAfter`
     */
    async begin(gate: string, address: string): Promise<() => Promise<void>> {
      const place = `${gate} ${networkOf(address)}`
      const keys: [Limit, string][] = [
        ['place', place],
        ['placeLong', place],
        ['placeLongest', place],
        ['gate', gate],
      ]
      for (const [limit, key] of keys)
        await limiters[limit].consume(key).catch((refusal: RateLimiterRes) => {
          throw new VisitorProblem(429, 'guessing', { retryAfter: Math.max(1, Math.ceil(refusal.msBeforeNext / 1000)) })
        })
      return async () => {
        // Who was right begins anew where they are; what counts for everybody is only given back.
        await Promise.all(keys.map(([limit, key]) => (limit === 'gate' ? limiters.gate.reward(key, 1) : limiters[limit].delete(key))))
      }
    },
  }
}
export type Guessing = ReturnType<typeof createGuessing>
