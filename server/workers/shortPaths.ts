import { parentPort } from 'node:worker_threads'
import { shortPaths } from '../services/oldAddresses/shortPaths'
import { comeAfterVisitors } from './courtesy'

/** Paths, a line each. */
export type ShortPathsTask = string
export type ShortPathsMessage = Float64Array<ArrayBuffer>

comeAfterVisitors()
parentPort!.on('message', (lines: ShortPathsTask) => {
  const short = shortPaths(lines.split('\n')) satisfies ShortPathsMessage
  parentPort!.postMessage(short, [short.buffer])
})
