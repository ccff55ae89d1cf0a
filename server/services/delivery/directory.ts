import { and, eq, sql } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import type { Database } from '../../db/connection'
import { blobs, editions, files, retiredHandles, uses } from '../../db/schema'
import type { Events } from '../events'
import { editionDeliverable, type Deliverable } from './deliverable'

/** What an address in `/files/` leads to. */
export type Entry =
  | { kind: 'file', current: Deliverable, edition: (number: number) => Deliverable | undefined }
  | { kind: 'bundle', id: string }
  | { kind: 'moved', handle: string }
  | { kind: 'gone' }

/** Finds what handles lead to; answers from memory until something changes. */
export function createDirectory(db: Database, events: Events) {
  const entries = new LRUCache<string, Entry>({ max: 20_000 })
  let savedNames: Promise<Map<string, string>> | undefined
  // Counts the changes, so that an answer read before one is not remembered after it.
  let age = 0
  const forget = () => {
    age++
    entries.clear()
    savedNames = undefined
  }
  events.on('library', forget)
  events.on('live', forget)

  async function read(handle: string): Promise<Entry | undefined> {
    const [file] = await db.select().from(files).where(eq(files.handle, handle))
    if (!file) {
      const [retired] = await db.select({ fileId: retiredHandles.fileId, handle: files.handle }).from(retiredHandles)
        .leftJoin(files, eq(files.id, retiredHandles.fileId)).where(eq(retiredHandles.handle, handle))
      if (!retired) return undefined
      return retired.handle === null ? { kind: 'gone' } : { kind: 'moved', handle: retired.handle }
    }
    if (file.deleted) return { kind: 'gone' }
    const rows = await db.select({ edition: editions, blob: blobs }).from(editions)
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .where(and(eq(editions.fileId, file.id), sql`(${editions.pinned} or ${editions.number} = ${file.edition})`))
    const current = rows.find(row => row.edition.number === file.edition)
    if (!current) return { kind: 'bundle', id: file.id }
    const byNumber = new Map(rows.map(row => [row.edition.number, editionDeliverable(row)]))
    return { kind: 'file', current: editionDeliverable(current, file.changed), edition: number => byNumber.get(number) }
  }

  /** The current edition of a file, be it in the bin. */
  async function current(fileId: string): Promise<Deliverable | undefined> {
    const [row] = await db.select({ edition: editions, blob: blobs, changed: files.changed }).from(files)
      .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256)).where(eq(files.id, fileId))
    return row && editionDeliverable(row, row.changed)
  }

  async function readSavedNames(): Promise<Map<string, string>> {
    const rows = await db.select({ placement: uses.placement, saveAs: uses.saveAs }).from(uses)
      .where(and(eq(uses.side, 'live'), sql`${uses.saveAs} <> ''`))
    return new Map(rows.map(({ placement, saveAs }) => [placement, saveAs]))
  }

  return {
    current,

    /** At once from memory where possible, so that a busy file costs no turn of the loop. */
    find(handle: string): Entry | undefined | Promise<Entry | undefined> {
      const known = entries.get(handle)
      if (known) return known
      const asked = age
      return read(handle).then((entry) => {
        if (entry && asked === age) entries.set(handle, entry)
        return entry
      })
    },

    /** The name a live button saves under, where its owner chose one. */
    async savedName(placement: string): Promise<string | undefined> {
      const names = await (savedNames ??= readSavedNames().catch((error: unknown) => {
        // A failure is not remembered: the next visitor asks again.
        savedNames = undefined
        throw error
      }))
      return names.get(placement)
    },
  }
}
export type Directory = ReturnType<typeof createDirectory>
