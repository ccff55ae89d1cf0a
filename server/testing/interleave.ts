import pg from 'pg'
import type { PostgresAddress } from '../db/drivers/postgres'

type Query = (this: { connectionParameters: { application_name?: string } }, ...given: unknown[]) => unknown

/** Holds one side up before each of its questions in turn; the other goes as far as it can meanwhile. */
interface Pause {
  side: string
  left: number
  held: () => void
  goOn: Promise<void>
}

let pause: Pause | undefined
let patched = false

/** Lets questions of a side wait where a pause is set for it. */
function patch(): void {
  if (patched) return
  patched = true
  const prototype = pg.Client.prototype as unknown as { query: Query }
  const ask = prototype.query
  prototype.query = function (...given) {
    const at = pause
    if (!at || this.connectionParameters.application_name !== at.side || at.left-- !== 0) return ask.apply(this, given)
    at.held()
    const answer = at.goOn.then(() => ask.apply(this, given))
    return typeof given.at(-1) === 'function' ? undefined : answer
  }
}

/** What became of a change. */
export type Outcome<T> = PromiseSettledResult<T>

const settled = <T>(work: Promise<T>): Promise<Outcome<T>> =>
  work.then(
    value => ({ status: 'fulfilled', value }),
    (reason: unknown) => ({ status: 'rejected', reason }),
  )

/**
 * Runs two changes on one database in every order there is between a step of the first and the whole of the second:
 * the first is held up before its n-th question to the database, the second runs until it has ended or waits for a
 * lock of the first, then both go on; for each n as long as there are that many.
 *
 * @param sides the `application_name` of the connections of each
 * @param begin makes what the two work on, anew for each order, and gives the two
 * @param look is told what became of the two
 * @returns how many orders there were
 */
export async function interleave<A, B>(
  address: PostgresAddress,
  sides: [string, string],
  begin: () => Promise<[() => Promise<A>, () => Promise<B>]>,
  look: (one: Outcome<A>, other: Outcome<B>) => Promise<void>,
): Promise<number> {
  patch()
  const watcher = new pg.Client(address)
  await watcher.connect()
  const waits = async () =>
    (await watcher.query('select 1 from pg_stat_activity where application_name = $1 and wait_event_type = $2', [sides[1], 'Lock'])).rows
      .length > 0
  try {
    for (let orders = 0; ; orders++) {
      const [one, other] = await begin()
      let goOn!: () => void
      const held = new Promise<void>(resolve => {
        pause = { side: sides[0], left: orders, held: resolve, goOn: new Promise(free => (goOn = free)) }
      })
      const first = settled(one())
      const stopped = await Promise.race([held.then(() => true), first.then(() => false)])
      let ended = false
      const second = settled(other()).finally(() => (ended = true))
      while (stopped && !ended && !(await waits())) await new Promise(resolve => setTimeout(resolve, 1))
      pause = undefined
      goOn()
      await look(await first, await second)
      if (!stopped) return orders
    }
  } finally {
    pause = undefined
    await watcher.end()
  }
}
