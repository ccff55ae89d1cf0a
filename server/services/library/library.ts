import { and, eq, isNotNull, isNull, like, lt, sql } from 'drizzle-orm'
import type { DeleteFile, FileChange, FileItem, FileQuery, FileUse } from '../../../core/files/item'
import { cleanFileName, splitExtension, titleFromFileName } from '../../../core/files/fileName'
import { firstFree, handleFromFileName } from '../../../core/files/handle'
import { newId } from '../../../core/id'
import { Problem } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { blobs, editions, files, retiredHandles } from '../../db/schema'
import type { Store } from '../../store/store'
import type { Events } from '../events'
import type { PageService } from '../pages/pages'
import { createQueue } from '../queue'
import { filesById, getFile, listFiles, twinsOf, usesOf } from './items'
import { sniffType } from './sniff'

/** Bytes that arrived whole, with what was computed while they came in. */
export interface Arrival {
  /** a finished file on the store's disk; taken over */
  path: string
  /** hexadecimal */
  sha256: string
  crc32: number
  size: number
  /** as the sender gave it */
  fileName: string
  /** one upload makes one file, however often it is handed in */
  uploadId?: string
}

const BIN_DAYS = 30

/** The library: files come in, are named, go to the bin and come back. */
export function createLibraryService(db: Database, store: Store, pages: PageService, events: Events) {
  // Bytes that are just arriving must not be collected as unused by the run that began before.
  const oneAtATime = createQueue()

  /** All handles beginning like one, those in use and those that redirect. */
  async function takenLike(tx: Queryable, handle: string): Promise<Set<string>> {
    const pattern = `${splitExtension(handle)[0].slice(0, 60)}%`
    const used = await tx.select({ handle: files.handle }).from(files).where(like(files.handle, pattern))
    const retired = await tx.select({ handle: retiredHandles.handle }).from(retiredHandles).where(like(retiredHandles.handle, pattern))
    return new Set([...used, ...retired].map(row => row.handle))
  }

  async function fileOfUpload(uploadId: string): Promise<FileItem | undefined> {
    const [edition] = await db.select({ fileId: editions.fileId }).from(editions).where(eq(editions.uploadId, uploadId))
    return edition && getFile(db, edition.fileId)
  }

  async function ingest({ path, sha256, crc32, size, fileName: rawName, uploadId }: Arrival): Promise<FileItem> {
    const known = uploadId && await fileOfUpload(uploadId)
    if (known) return known
    const fileName = cleanFileName(rawName)
    // After a restart the bytes may have been adopted already; the type is then read where they are.
    const adopted = await store.has(sha256)
    const mediaType = await sniffType(adopted ? store.pathOf(sha256) : path, fileName)
    await store.adopt(sha256, path)

    const id = newId()
    await db.transaction(async (tx) => {
      await tx.insert(blobs).values({ sha256, size, crc32, preview: size ? 'waiting' : 'none' }).onConflictDoNothing()
      const wanted = handleFromFileName(fileName)
      const taken = await takenLike(tx, wanted)
      const handle = firstFree(wanted, candidate => taken.has(candidate))
      await tx.insert(files).values({ id, title: titleFromFileName(fileName).slice(0, 200), handle, edition: 1 })
      await tx.insert(editions).values({ fileId: id, number: 1, sha256, fileName, mediaType, uploadId })
    })
    events.emit('library')
    return getFile(db, id)
  }

  async function collectBytes(): Promise<number> {
    const orphans = await db.select({ sha256: blobs.sha256 }).from(blobs)
      .leftJoin(editions, eq(editions.sha256, blobs.sha256)).where(isNull(editions.sha256))
    let collected = 0
    for (const { sha256 } of orphans) {
      const gone = await db.delete(blobs)
        .where(and(eq(blobs.sha256, sha256), sql`not exists (select 1 from ${editions} where ${editions.sha256} = ${sha256})`)).returning()
      if (!gone.length) continue
      await store.remove(sha256)
      collected++
    }
    return collected
  }

  return {
    list: (query: FileQuery) => listFiles(db, query),
    get: (id: string) => getFile(db, id),
    byId: (ids: string[]) => filesById(db, ids),
    twins: (file: FileItem) => twinsOf(db, file),
    uses: (id: string): Promise<FileUse[]> => usesOf(db, id),
    fileOfUpload,

    /** Puts arrived bytes into the store, then makes a file of them. */
    ingest: (arrival: Arrival): Promise<FileItem> => oneAtATime(() => ingest(arrival)),

    /** Changes title or handle; the old handle redirects from then on. */
    async change(id: string, { title, handle }: FileChange): Promise<FileItem> {
      const file = await getFile(db, id)
      await db.transaction(async (tx) => {
        if (title !== undefined) await tx.update(files).set({ title }).where(eq(files.id, id))
        if (handle === undefined || handle === file.handle) return
        const [redirect] = await tx.select().from(retiredHandles).where(eq(retiredHandles.handle, handle))
        const [holder] = await tx.select({ title: files.title }).from(files).where(eq(files.handle, handle))
        if (holder || (redirect && redirect.fileId !== id)) {
          const owner = holder?.title ?? (redirect?.fileId ? (await getFile(tx, redirect.fileId)).title : 'a file that is gone')
          throw new Problem(409, `/files/${handle} belongs to ${holder || redirect?.fileId ? `"${owner}"` : owner}.`, 'Choose another address.', { field: 'handle' })
        }
        // Going back to a former handle of its own ends that redirect.
        await tx.delete(retiredHandles).where(eq(retiredHandles.handle, handle))
        await tx.insert(retiredHandles).values({ handle: file.handle, fileId: id })
        await tx.update(files).set({ handle }).where(eq(files.id, id))
      })
      events.emit('library')
      return getFile(db, id)
    },

    /**
     * Puts a file in the bin.
     *
     * @throws Problem 409 with the places in `uses` where it is in use and no way on is chosen
     */
    async remove(id: string, { replaceBy, takeOff, despite }: DeleteFile = {}): Promise<FileItem> {
      await db.transaction(async (tx) => {
        await getFile(tx, id)
        const places = await usesOf(tx, id)
        if (places.length && !replaceBy && !takeOff && !despite) {
          const count = places.length === 1 ? '1 button or link uses' : `${places.length} buttons and links use`
          throw new Problem(409, `${count} this file.`, 'Put another file in its place, take them off, or delete it all the same.', { uses: places })
        }
        if (replaceBy === id) throw new Problem(422, 'A file cannot take its own place.', 'Choose another file.')
        if (replaceBy && (await getFile(tx, replaceBy)).deleted) {
          throw new Problem(422, 'That file is in the bin itself.', 'Restore it first, or choose another.')
        }
        if (replaceBy) await pages.retarget(tx, id, { kind: 'file', id: replaceBy })
        else if (takeOff) await pages.retarget(tx, id, 'remove')
        await tx.update(files).set({ deleted: new Date() }).where(eq(files.id, id))
      })
      events.emit('library')
      events.emit('live')
      return getFile(db, id)
    },

    async restore(id: string): Promise<FileItem> {
      await getFile(db, id)
      await db.update(files).set({ deleted: null }).where(eq(files.id, id))
      events.emit('library')
      return getFile(db, id)
    },

    /** Files longer than 30 days in the bin go for good; their bytes are collected afterwards. */
    async emptyOldBin(now = new Date()): Promise<void> {
      const before = new Date(now.getTime() - BIN_DAYS * 24 * 60 * 60 * 1000)
      await db.transaction(async (tx) => {
        const gone = await tx.delete(files).where(and(isNotNull(files.deleted), lt(files.deleted, before))).returning({ handle: files.handle })
        if (gone.length) await tx.insert(retiredHandles).values(gone.map(({ handle }) => ({ handle, fileId: null })))
      })
      events.emit('library')
    },

    /** Removes bytes that no edition refers to: the record first, so that none ever points at nothing. */
    collectBytes: (): Promise<number> => oneAtATime(collectBytes),
  }
}
export type LibraryService = ReturnType<typeof createLibraryService>
