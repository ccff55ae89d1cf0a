import type { TreeMessage, TreeTask } from '../../workers/treeWork'
import { createWorkerHost, workerScript } from '../workerHost'

/** A disk that neither takes nor gives anything for this long, in milliseconds, is stuck. */
const PATIENCE = 2 * 60 * 1000

/** Does work with a tree of files in a thread of its own. @throws Error of the system, with its code */
async function inThread(task: TreeTask, onNames: (names: string[]) => void = () => undefined): Promise<void> {
  const host = createWorkerHost<TreeTask, TreeMessage>(workerScript('treeWork'), PATIENCE)
  let failure: Error | undefined
  try {
    await host.run(task, message => {
      if ('names' in message) onNames(message.names)
      if ('error' in message) failure = Object.assign(new Error(message.error), { code: message.code })
      return 'done' in message || 'error' in message
    })
  } finally {
    await host.close()
  }
  if (failure) throw failure
}

/** Copies a tree, unchanged files as links to an earlier copy. What was copied is not safe on disk yet: `makeSafe`. */
export const copyTree = (task: { from: string; to: string; earlier?: string }): Promise<void> => inThread({ work: 'copy', ...task })

/** Makes sure that a tree is on the disk. */
export const makeSafe = (folder: string): Promise<void> => inThread({ work: 'sync', folder })

/** Removes a tree; one that is not there is none to remove. */
export const removeTree = (folder: string): Promise<void> => inThread({ work: 'remove', folder })

/** The names of all files in a folder and below it. */
export async function namesBelow(folder: string): Promise<Set<string>> {
  const found = new Set<string>()
  await inThread({ work: 'list', folder }, names => names.forEach(name => found.add(name)))
  return found
}
