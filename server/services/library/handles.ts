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

/** The handle a new file of this name gets: never one that was given out before. */
export async function freeHandle(tx: Queryable, fileName: string): Promise<string> {
  const wanted = handleFromFileName(fileName)
  const taken = await takenLike(tx, wanted)
  return firstFree(wanted, candidate => taken.has(candidate))
}
