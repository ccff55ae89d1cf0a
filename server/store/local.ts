import { close, createReadStream, fstat, open, read } from 'node:fs'
import { access, mkdir, readdir, rename, rm, stat, statfs, utimes } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { promisify } from 'node:util'
import { syncFile, syncFolder } from './safely'
import type { Store } from './store'

/** Larger chunks than Node's 64 KiB more than double the throughput of a single stream. */
const CHUNK = 1024 * 1024

const [openFile, closeFile, statFile] = [promisify(open), promisify(close), promisify(fstat)]

/** What lies in a folder; nothing where there is none. */
async function namesIn(folder: string): Promise<string[]> {
  return readdir(folder).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return []
    throw error
  })
}

/** A store whose bytes lie on this machine, for those who can only work with such a one. */
export interface LocalStore extends Store {
  /** Where a blob lies below the store's own folder, with `/` between folders. */
  placeOf(sha256: string): string
  /** Where a blob lies. */
  pathOf(sha256: string): string
}

/** Bytes in a folder of this machine: `sha256/ab/cd/<hex>`. Whatever is adopted must lie on the same disk. */
export function localStore(folder: string): LocalStore {
  const base = join(folder, 'sha256')
  const aside = join(folder, 'set-aside')
  const placeOf = (sha256: string) => {
    if (!/^[0-9a-f]{64}$/.test(sha256)) throw new RangeError(`"${sha256}" is not a SHA-256 in hexadecimal.`)
    return `sha256/${sha256.slice(0, 2)}/${sha256.slice(2, 4)}/${sha256}`
  }
  const pathOf = (sha256: string) => join(folder, placeOf(sha256))
  const has = (sha256: string) =>
    access(pathOf(sha256)).then(
      () => true,
      (error: NodeJS.ErrnoException) => {
        if (error.code === 'ENOENT') return false
        throw error
      },
    )

  return {
    has,
    placeOf,
    pathOf,
    withFile: (sha256, use) => use(pathOf(sha256)),
    withFiles: (hashes, use) => use(hashes.map(sha256 => ({ sha256, path: pathOf(sha256) }))),
    async adopt(sha256, path) {
      const final = pathOf(sha256)
      if (await has(sha256)) {
        await rm(path, { force: true })
        return
      }
      await syncFile(path)
      await mkdir(dirname(final), { recursive: true })
      await rename(path, final)
      // The rename is only safe once the folders that lead to the new name are on disk.
      for (let parent = dirname(final); parent.startsWith(folder); parent = dirname(parent)) await syncFolder(parent)
    },
    async open(sha256) {
      // Plain descriptors: a handle's own promises cost a tenth of a busy stream.
      const file = await openFile(pathOf(sha256), 'r')
      return {
        size: async () => (await statFile(file)).size,
        read: (into, position) =>
          new Promise((resolve, reject) => {
            read(file, into, 0, into.length, position, (error, count) => (error ? reject(error) : resolve(count)))
          }),
        close: () => closeFile(file),
      }
    },
    read: (sha256, { start, end }) => createReadStream(pathOf(sha256), { start, end: end - 1, highWaterMark: CHUNK }),
    remove: sha256 => rm(pathOf(sha256), { force: true }),
    async setAside(sha256) {
      await mkdir(aside, { recursive: true })
      const to = join(aside, sha256)
      await rename(pathOf(sha256), to)
      // From now on it is known since when it lies there.
      await utimes(to, new Date(), new Date())
      await syncFolder(dirname(pathOf(sha256)))
    },
    async emptySetAside(before) {
      for (const name of await namesIn(aside)) {
        const path = join(aside, name)
        if ((await stat(path)).mtime < before) await rm(path, { force: true })
      }
    },
    async *list() {
      for (const first of await namesIn(base)) {
        for (const second of await namesIn(join(base, first))) yield* await namesIn(join(base, first, second))
      }
    },
    async free() {
      const { bavail, bsize } = await statfs(folder)
      return bavail * bsize
    },

    async capacity() {
      const { blocks, bsize } = await statfs(folder)
      return blocks * bsize
    },
  }
}
