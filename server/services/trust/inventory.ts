import type { InventoryMessage, InventoryTask } from '../../workers/inventory'
import { createWorkerHost, workerScript } from '../workerHost'

/** A disk that gives nothing for this long, in milliseconds, is stuck. */
const PATIENCE = 2 * 60 * 1000

/**
 * The names of all files in a folder and below it, looked up in a thread of its own.
 *
 * @throws Error of the system, with its code
 */
export async function namesBelow(folder: string): Promise<string[]> {
  const host = createWorkerHost<InventoryTask, InventoryMessage>(workerScript('inventory'), PATIENCE)
  const found: string[] = []
  let failure: Error | undefined
  try {
    await host.run({ folder }, message => {
      if ('names' in message) for (const name of message.names) found.push(name)
      if ('error' in message) failure = Object.assign(new Error(message.error), { code: message.code })
      return !('names' in message)
    })
  } finally {
    await host.close()
  }
  if (failure) throw failure
  return found
}
