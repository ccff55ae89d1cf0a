import { createReadStream } from 'node:fs'
import { access, mkdir, open, readdir, rename, rm, statfs } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import type { Store } from './store'

/** Larger chunks than Node's 64 KiB more than double the throughput of a single stream. */
const CHUNK = 1024 * 1024

async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r')
  try {
    await handle.sync()
  }
  finally {
    await handle.close()
  }
}

/** Bytes in a folder of this machine: `sha256/ab/cd/<hex>`. Whatever is adopted must lie on the same disk. */
export function localStore(folder: string): Store {
  const base = join(folder, 'sha256')
  const placeOf = (sha256: string) => {
    if (!/^[0-9a-f]{64}$/.test(sha256)) throw new RangeError(`"${sha256}" is not a SHA-256 in hexadecimal.`)
    return `sha256/${sha256.slice(0, 2)}/${sha256.slice(2, 4)}/${sha256}`
  }
  const pathOf = (sha256: string) => join(folder, placeOf(sha256))
  const has = (sha256: string) => access(pathOf(sha256)).then(() => true, (error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return false
    throw error
  })

  return {
    has,
    placeOf,
    pathOf,
    async adopt(sha256, path) {
      const final = pathOf(sha256)
      if (await has(sha256)) {
        await rm(path, { force: true })
        return
      }
      const handle = await open(path, 'r')
      try {
        await handle.sync()
      }
      finally {
        await handle.close()
      }
      await mkdir(dirname(final), { recursive: true })
      await rename(path, final)
      // The rename is only safe once the folders that lead to the new name are on disk.
      for (let parent = dirname(final); parent.startsWith(folder); parent = dirname(parent)) await syncFolder(parent)
    },
    async open(sha256) {
      const handle = await open(pathOf(sha256), 'r')
      try {
        const { size } = await handle.stat()
        return {
          size,
          read: async (into, position) => (await handle.read(into, 0, into.length, position)).bytesRead,
          close: () => handle.close(),
        }
      }
      catch (error) {
        await handle.close()
        throw error
      }
    },
    read: (sha256, { start, end }) =>
      createReadStream(pathOf(sha256), { start, end: end - 1, highWaterMark: CHUNK }),
    remove: sha256 => rm(pathOf(sha256), { force: true }),
    async* list() {
      const entries = await readdir(base, { recursive: true, withFileTypes: true }).catch((error: NodeJS.ErrnoException) => {
        if (error.code === 'ENOENT') return []
        throw error
      })
      for (const entry of entries) if (entry.isFile()) yield entry.name
    },
    async free() {
      const { bavail, bsize } = await statfs(folder)
      return bavail * bsize
    },
  }
}
