import type { CopyMessage, CopyTask } from '../../workers/copy'
import { createWorkerHost, workerScript } from '../workerHost'

/** A disk that takes nothing for this long, in milliseconds, is stuck. */
const PATIENCE = 2 * 60 * 1000

/**
 * Copies a tree in a thread of its own, unchanged files as links to an earlier copy. What was copied is not safe on disk yet: `syncTree`.
 *
 * @throws Error of the system, with its code
 */
export async function copyTree(task: CopyTask): Promise<void> {
  const host = createWorkerHost<CopyTask, CopyMessage>(workerScript('copy'), PATIENCE)
  let failure: Error | undefined
  try {
    await host.run(task, message => {
      if ('error' in message) failure = Object.assign(new Error(message.error), { code: message.code })
      return !('copied' in message)
    })
  } finally {
    await host.close()
  }
  if (failure) throw failure
}
