import { like } from 'drizzle-orm'
import { splitExtension } from '../../../core/files/fileName'
import { firstFree, handleFromFileName } from '../../../core/files/handle'
import type { Queryable } from '../../db/connection'
import { files, retiredHandles } from '../../db/schema'

/** All handles beginning like one, those in use and those that redirect. */
async function takenLike(tx: Queryable, handle: string): Promise<Set<string>> {
  const pattern = `${splitExtension(handle)[0].slice(0, 60)}%`
  const used = await tx.select({ handle: files.handle }).from(files).where(like(files.handle, pattern))
  const retired = await tx.select({ handle: retiredHandles.handle }).from(retiredHandles).where(like(retiredHandles.handle, pattern))
  return new Set([...used, ...retired].map(row => row.handle))
}

/**
 * Gives handles to many new files in one transaction: never one that was given out before. What is taken is asked
 * once for each name, so that thousands of the same cost no more each than one.
 */
export function createHandleGiver(tx: Queryable): (fileName: string) => Promise<string> {
  const names = new Map<string, { taken: Set<string>; next: number }>()
  const given = new Set<string>()
  return async fileName => {
    const wanted = handleFromFileName(fileName)
    const known = names.get(wanted) ?? { taken: await takenLike(tx, wanted), next: 2 }
    names.set(wanted, known)
    // Counting goes on where it ended: those before are taken.
    const handle = firstFree(
      wanted,
      candidate => {
        if (!known.taken.has(candidate) && !given.has(candidate)) return false
        if (candidate !== wanted) known.next++
        return true
      },
      known.next,
    )
    given.add(handle)
    return handle
  }
}

/** The handle a new file of this name gets. */
export const freeHandle = (tx: Queryable, fileName: string): Promise<string> => createHandleGiver(tx)(fileName)
