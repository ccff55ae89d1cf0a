import type { HashMessage, HashTask } from '../../workers/hash'
import { createQueue } from '../../../core/queue'
import { createWorkerHost, workerScript } from '../workerHost'

/** A disk that gives nothing for this long, in milliseconds, is stuck. */
const PATIENCE = 2 * 60 * 1000

export interface Hashed {
  sha256: string
  /** null where there is no such file */ found: string | null
  size: number
}

/** Hashes files off the main thread, one task after another. */
export function createHashing() {
  const host = createWorkerHost<HashTask, HashMessage>(workerScript('hash'), PATIENCE)
  const oneAtATime = createQueue()
  return {
    /**
     * Reads files and tells of each what its bytes hash to.
     *
     * @throws Error where one cannot be read although it is there
     */
    run: (files: HashTask['files'], onHashed: (hashed: Hashed) => void): Promise<void> =>
      oneAtATime(async () => {
        let failure: Error | undefined
        await host.run({ files }, message => {
          if ('hashed' in message) {
            if (message.error) failure ??= new Error(message.error)
            else onHashed({ sha256: message.hashed, found: message.found, size: message.size })
          }
          return 'done' in message
        })
        if (failure) throw failure
      }),

    async one(path: string): Promise<string | null> {
      let found: string | null = null
      await this.run([{ sha256: '', path }], hashed => (found = hashed.found))
      return found
    },

    close: host.close,
  }
}
export type Hashing = ReturnType<typeof createHashing>
