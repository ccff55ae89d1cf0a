import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible'
import { networkOf } from '../../../core/http/forwarded'
import { Problem } from '../../../core/problem'

/** Where an attempt comes from. */
export interface Attempt {
  /** the visitor's address */
  place: string
  /** identity of a device that has signed in to this account before */
  device?: string
}

const MINUTE = 60

/** Failed attempts within so many seconds; further ones wait until that time is over. */
const LIMITS = {
  place: { points: 5, duration: MINUTE },
  placeLong: { points: 30, duration: 60 * MINUTE },
  account: { points: 20, duration: 60 * MINUTE },
  all: { points: 100, duration: 10 * MINUTE },
  device: { points: 10, duration: 10 * MINUTE },
}
type Limit = keyof typeof LIMITS

/**
 * Slows guessing down: by address (IPv6 by its network of 64 bits, which one customer has: RFC 6177), by account, and over
 * all. A device that has signed in before has an allowance of its own, so that a stranger who knows no more than the
 * e-mail does not keep its owner out.
 */
export function createLimits() {
  const limiters = Object.fromEntries(
    Object.entries(LIMITS).map(([name, limit]) => [name, new RateLimiterMemory({ keyPrefix: name, ...limit })]),
  ) as Record<Limit, RateLimiterMemory>

  /** Counts one as failed for now; gives what takes that back. */
  async function take(limit: Limit, key: string): Promise<() => Promise<unknown>> {
    await limiters[limit].consume(key).catch((refusal: RateLimiterRes) => {
      const seconds = Math.max(1, Math.ceil(refusal.msBeforeNext / 1000))
      throw new Problem(429, 'Too many attempts.', `Wait ${seconds} ${seconds === 1 ? 'second' : 'seconds'}, then try again.`, {
        retryAfter: seconds,
      })
    })
    // Who was right begins anew where they are; what counts for everybody is only given back.
    return () => (limit === 'place' || limit === 'device' ? limiters[limit].delete(key) : limiters[limit].reward(key, 1))
  }

  async function takeAll(keys: [Limit, string][]): Promise<() => Promise<void>> {
    const taken: (() => Promise<unknown>)[] = []
    for (const [limit, key] of keys) taken.push(await take(limit, key))
    return async () => {
      await Promise.all(taken.map(giveBack => giveBack()))
    }
  }

  return {
    /**
     * Counts an attempt of a place as failed before anything else is done, so that many at once do not slip past.
     *
     * @returns takes it back: it was right
     * @throws Problem 429 with the seconds to wait in `retryAfter`
     */
    begin: ({ place, device }: Attempt): Promise<() => Promise<void>> =>
      takeAll(
        device !== undefined
          ? [['device', device]]
          : [
              ['place', networkOf(place)],
              ['placeLong', networkOf(place)],
              ['all', ''],
            ],
      ),

    /** Counts an attempt on an account, in the same way; none of a device that has its own allowance. */
    on: (account: string, { device }: Attempt): Promise<() => Promise<void>> => takeAll(device !== undefined ? [] : [['account', account]]),
  }
}
export type Limits = ReturnType<typeof createLimits>
