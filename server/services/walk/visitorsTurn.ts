import { setImmediate as nextTurn } from 'node:timers/promises'

/** Milliseconds of work after which visitors have their turn. */
const PIECE = 2

/** Gives visitors their turn whenever a piece of work has taken its time; what takes less costs none. */
export function createVisitorsTurn(): () => Promise<void> {
  let since = performance.now()
  return async () => {
    if (performance.now() - since < PIECE) return
    await nextTurn()
    since = performance.now()
  }
}
