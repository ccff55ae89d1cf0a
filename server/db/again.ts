import { setTimeout as wait } from 'node:timers/promises'

/** What PostgreSQL undoes because of what happened beside it: serialization failures and deadlocks (PostgreSQL, appendix A). */
const UNDONE = new Set(['40001', '40P01'])
const MOST_TRIES = 30
/** Longest rest before the first try after one that was undone, in milliseconds. */
const REST = 4

/** The word of PostgreSQL for what went wrong, also where somebody wrapped it up. */
function codeOf(error: unknown): string | undefined {
  const { code, cause } = error as { code?: string; cause?: { code?: string } }
  return code ?? cause?.code
}

/**
 * Does something in a database again where it was undone only because of what happened beside it (PostgreSQL, 13.5):
 * the next time it sees what the others did.
 *
 * @throws Error of the last of many tries
 */
export async function again<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await work()
    } catch (error) {
      if (!UNDONE.has(codeOf(error) ?? '') || tries === MOST_TRIES) throw error
      // Two that met do not meet again.
      await wait(Math.random() * REST * tries)
    }
  }
}
