import { availableParallelism } from 'node:os'
import PQueue from 'p-queue'
import { Problem } from '../../../core/problem'
import type { PasswordMessage, PasswordTask } from '../../workers/password'
import { createAsker, workerScript } from '../workerHost'

/** Hashes at once, each in a thread of its own: two, and on small machines one, so that a burst of sign-ins leaves a core to visitors. */
const AT_ONCE = Math.max(1, Math.min(2, availableParallelism() - 1))
/** Sign-ins that wait for theirs. */
const MOST_WAITING = 6
/** Milliseconds a hash may take: a second, or many where others have the machine, since it comes after visitors. */
const PATIENCE = 240_000

const startWorker = () => createAsker<PasswordTask, PasswordMessage>(workerScript('password'), PATIENCE)

/** Hashes passwords and holds them against hashes, off the threads that answer visitors and read files for them. */
export function createHasher({ start = startWorker, atOnce = AT_ONCE } = {}) {
  const idle = Array.from({ length: atOnce }, start)
  const all = [...idle]
  const queue = new PQueue({ concurrency: atOnce })

  async function ask(task: PasswordTask): Promise<PasswordMessage> {
    const worker = idle.pop()!
    try {
      const answer = await worker.ask(task)
      if ('error' in answer) throw new Error(answer.error)
      return answer
    } finally {
      idle.push(worker)
    }
  }

  /** Which of some hashes a password is; -1 for none. */
  async function match(password: string, hashes: string[], known = false): Promise<number> {
    if (!known && queue.size >= MOST_WAITING)
      throw new Problem(429, 'Too many are signing in just now.', 'Try again in a few seconds.', { retryAfter: 5 })
    const answer = await queue.add(() => ask({ password, hashes }), { priority: known ? 1 : 0 })
    return (answer as { matches: number }).matches
  }

  return {
    /**
     * A salted, memory-hard hash of a password, with its parameters in front.
     *
     * @param like a hash whose salt it shares: both are then looked for in one go
     */
    hash: async (password: string, like?: string): Promise<string> => {
      const answer = await queue.add(() => ask({ password, like }), { priority: 1 })
      return (answer as { hash: string }).hash
    },

    /**
     * Whether a password is the one that was hashed.
     *
     * @param known somebody who has been here before: comes first, and is never refused
     * @throws Problem 429 where too many wait already
     */
    verify: async (password: string, hash: string, { known = false } = {}): Promise<boolean> =>
      (await match(password, [hash], known)) === 0,

    /** Which of some hashes a password is; -1 for none. @throws Problem 429 where too many wait already */
    match: (password: string, hashes: string[]): Promise<number> => match(password, hashes),

    close: async (): Promise<void> => {
      await Promise.all(all.map(worker => worker.close()))
    },
  }
}
export type Hasher = ReturnType<typeof createHasher>
