import { RateLimiterMemory } from 'rate-limiter-flexible'
import { networkOf } from '../../../core/http/forwarded'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import type { Store } from '../../store/store'

/** How many hand something in at the same time, in all and from one network. */
const AT_ONCE = 10
const AT_ONCE_EACH = 3
/** How often something is handed in from one network, which may be a whole office's, within seconds. */
const OFTEN = { points: 30, duration: 60 * 60 }

/** What visitors hand in leaves a tenth of the disk free, or so many bytes of a large one: the shop's own files need room, too. */
const SHARE = 0.1
const ENOUGH = 5_000_000_000

/** How much room there is for what visitors hand in. */
export function createRoom(store: Pick<Store, 'free' | 'capacity'>) {
  const often = new RateLimiterMemory({ keyPrefix: 'handed in', ...OFTEN })
  const here = new Map<string, number>()
  let promised = 0

  const busy = (seconds: number) => new VisitorProblem(429, 'busy', { retryAfter: seconds })

  return {
    /**
     * Keeps room for something that is on its way.
     *
     * @param bytes at most
     * @returns gives the room back
     * @throws VisitorProblem 429 where too much comes at once, 507 where the disk would be too full
     */
    async take(bytes: number, address: string): Promise<() => void> {
      const network = networkOf(address)
      const own = here.get(network) ?? 0
      const all = [...here.values()].reduce((sum, count) => sum + count, 0)
      if (own >= AT_ONCE_EACH || all >= AT_ONCE) throw busy(30)
      here.set(network, own + 1)
      promised += bytes
      const release = () => {
        promised -= bytes
        const left = here.get(network)! - 1
        if (left) here.set(network, left)
        else here.delete(network)
      }
      try {
        const refusal = await often.consume(network).then(
          () => undefined,
          ({ msBeforeNext }: { msBeforeNext: number }) => busy(Math.max(1, Math.ceil(msBeforeNext / 1000))),
        )
        if (refusal) throw refusal
        if ((await store.free()) - promised < Math.min(ENOUGH, SHARE * (await store.capacity()))) throw new VisitorProblem(507, 'noRoom')
        return release
      } catch (error) {
        release()
        throw error
      }
    },
  }
}
export type Room = ReturnType<typeof createRoom>
