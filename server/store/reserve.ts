import { open, rm, stat, statfs } from 'node:fs/promises'
import { join } from 'node:path'
import { isDiskFull } from '../../core/diskFull'

/**
 * The database begins a new stretch of its log when one is full, and cannot go on without room for it: 16 MiB (PostgreSQL, WAL internals).
 * With less than this free nothing is changed.
 */
export const LEAST_FREE = 3 * 16 * 1024 * 1024

const NAME = 'reserve'
/** Bytes: twice what the database's log takes in one step (PostgreSQL, WAL internals: 16 MiB), and a little. */
const SIZE = 40 * 1024 * 1024
/** The reserve is put back once so much is free beside it. */
const ENOUGH = 8 * SIZE

const freeOn = async (folder: string): Promise<number> => statfs(folder).then(({ bavail, bsize }) => bavail * bsize)

/** Room that is kept for the database, so that it can start, and things can be deleted, on a disk that is full. */
export function createReserve(folder: string) {
  const path = join(folder, NAME)
  return {
    /** Gives the room back where the disk is full; gives whether it is. */
    async release(): Promise<boolean> {
      const full = (await freeOn(folder)) < SIZE
      if (full) await rm(path, { force: true })
      return full
    },

    /** Keeps the room where there is enough beside it. */
    async keep(): Promise<void> {
      const size = await stat(path).then(
        file => file.size,
        () => 0,
      )
      if (size >= SIZE || (await freeOn(folder)) < ENOUGH) return
      const file = await open(path, 'w', 0o600)
      try {
        // Written out: a file with holes holds no room.
        for (let written = 0; written < SIZE; written += 1024 * 1024) await file.write(Buffer.alloc(1024 * 1024, 1))
        await file.sync()
      } catch (error) {
        await rm(path, { force: true })
        if (!isDiskFull(error)) throw error
      } finally {
        await file.close()
      }
    },
  }
}
export type Reserve = ReturnType<typeof createReserve>
