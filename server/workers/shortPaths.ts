import { parentPort } from 'node:worker_threads'
import { shortPaths } from '../services/oldAddresses/shortPaths'
import { comeAfterVisitors } from './courtesy'

/** Some paths, a line each; or that these were all. */
export type ShortPathsTask = string | 'all'
/** How many paths came, and all of them in short, in order, once they have come. */
export type ShortPathsMessage = { count: number; all?: Float64Array<ArrayBuffer> }

let found: Float64Array[] = []

/** Everything that came so far, as one list. */
function takeAll(): Float64Array<ArrayBuffer> {
  const all = new Float64Array(found.reduce((sum, some) => sum + some.length, 0))
  let at = 0
  for (const some of found) {
    all.set(some, at)
    at += some.length
  }
  found = []
  return all.sort()
}

comeAfterVisitors()
parentPort!.on('message', (task: ShortPathsTask) => {
  // No path is this word: they begin with a slash.
  if (task !== 'all') {
    const some = shortPaths(task.split('\n'))
    found.push(some)
    return parentPort!.postMessage({ count: some.length } satisfies ShortPathsMessage)
  }
  const all = takeAll()
  parentPort!.postMessage({ count: all.length, all } satisfies ShortPathsMessage, [all.buffer])
})
