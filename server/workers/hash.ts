import { createHash } from 'node:crypto'
import { closeSync, openSync, readSync } from 'node:fs'
import { parentPort } from 'node:worker_threads'

/** Files whose bytes are read and hashed. */
export interface HashTask {
  files: { sha256: string; path: string }[]
}

/** `at`: bytes read so far of the one under way; `hashed`: its SHA-256, null where there is no such file, or why it could not be read */
export type HashMessage = { at: number } | { hashed: string; found: string | null; size: number; error?: string } | { done: true }

const CHUNK = 4 * 1024 * 1024
/** A long file says that it goes on after this many bytes. */
const SAY_AFTER = 256 * 1024 * 1024
const buffer = Buffer.allocUnsafeSlow(CHUNK)
const port = parentPort!
const say = (message: HashMessage) => port.postMessage(message)

function hashFile(path: string): { found: string; size: number } {
  const file = openSync(path, 'r')
  try {
    const hash = createHash('sha256')
    let [size, said] = [0, 0]
    for (let count = readSync(file, buffer); count; count = readSync(file, buffer)) {
      hash.update(count === CHUNK ? buffer : buffer.subarray(0, count))
      size += count
      if (size - said < SAY_AFTER) continue
      said = size
      say({ at: size })
    }
    return { found: hash.digest('hex'), size }
  } finally {
    closeSync(file)
  }
}

port.on('message', ({ files }: HashTask) => {
  for (const { sha256, path } of files) {
    try {
      say({ hashed: sha256, ...hashFile(path) })
    } catch (error) {
      const { code, message } = error as NodeJS.ErrnoException
      say(code === 'ENOENT' ? { hashed: sha256, found: null, size: 0 } : { hashed: sha256, found: null, size: 0, error: message })
    }
  }
  say({ done: true })
})
