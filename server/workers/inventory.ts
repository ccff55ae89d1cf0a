import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { parentPort } from 'node:worker_threads'
import { comeAfterVisitors } from './courtesy'

/** A folder of which the names of all files are wanted. */
export interface InventoryTask {
  folder: string
}
export type InventoryMessage = { names: string[] } | { done: true } | { error: string; code?: string }

const AT_ONCE = 10_000

comeAfterVisitors()

const say = (message: InventoryMessage) => parentPort!.postMessage(message)

function* namesIn(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.isDirectory()) yield* namesIn(join(folder, entry.name))
    else yield entry.name
  }
}

parentPort!.on('message', ({ folder }: InventoryTask) => {
  let names: string[] = []
  try {
    for (const name of namesIn(folder)) {
      names.push(name)
      if (names.length < AT_ONCE) continue
      say({ names })
      names = []
    }
    say({ names })
    say({ done: true })
  } catch (error) {
    const { message, code } = error as NodeJS.ErrnoException
    say({ error: message, code })
  }
})
