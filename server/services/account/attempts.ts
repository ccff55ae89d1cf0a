import { LRUCache } from 'lru-cache'
import { Problem } from '../../../core/problem'

const FREE = 5
const FIRST_WAIT = 15_000
const LONGEST_WAIT = 15 * 60_000

interface Record { failures: number, until: number }

/** Slows guessing down: after five failures from one place each further one doubles the wait. */
export class Attempts {
  private records = new LRUCache<string, Record>({ max: 10_000, ttl: 24 * 60 * 60_000 })
  constructor(private now: () => number = Date.now) {}

  /** @throws Problem 429 while one has to wait, with the seconds in `retryAfter` */
  check(key: string): void {
    const wait = (this.records.get(key)?.until ?? 0) - this.now()
    if (wait <= 0) return
    const seconds = Math.ceil(wait / 1000)
    throw new Problem(429, 'Too many attempts.', `Wait ${seconds} ${seconds === 1 ? 'second' : 'seconds'}, then try again.`, { retryAfter: seconds })
  }

  failed(key: string): void {
    const failures = (this.records.get(key)?.failures ?? 0) + 1
    const wait = failures < FREE ? 0 : Math.min(FIRST_WAIT * 2 ** (failures - FREE), LONGEST_WAIT)
    this.records.set(key, { failures, until: this.now() + wait })
  }

  succeeded(key: string): void {
    this.records.delete(key)
  }
}
