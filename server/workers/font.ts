import { readFile } from 'node:fs/promises'
import { parentPort } from 'node:worker_threads'
import { withoutPlaces } from '../../core/files/withoutPlaces'
import { comeAfterVisitors } from './courtesy'
import { readFont, type ReadFont } from './readers/font'
import { Unreadable } from './readers/reader'

export interface FontTask {
  path: string
}
export type FontMessage = ReadFont | { trouble: string }

/** Makes fonts ready to be served, away from everything else: one with many letters takes seconds. */
comeAfterVisitors()
parentPort!.on('message', async ({ path }: FontTask) => {
  const answer = await readFile(path)
    .then(readFont)
    .catch((error: Error): FontMessage => ({
      trouble: error instanceof Unreadable ? error.message : `The font could not be read: ${withoutPlaces(error.message)}`,
    }))
  parentPort!.postMessage(answer satisfies FontMessage)
})
