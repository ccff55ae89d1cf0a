import { eq, inArray } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { broughtBy, type BundleChange, type BundleDetails, type BundleEntry, type NewBundle } from '../../../core/bundle/bundleEntry'
import type { FileItem } from '../../../core/files/fileItem'
import { cleanFileName } from '../../../core/files/fileName'
import type { Selection } from '../../../core/files/selection'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import { ZipLayout } from '../../../core/zip/layout'
import type { Database, Queryable } from '../../db/connection'
import { bundles, files } from '../../db/schema'
import type { Events } from '../events'
import { freeHandle } from '../files/handles'
import { mustHave, readTree } from '../files/readTree'
import { nextPosition } from '../files/position'
import { filesById, getFile } from '../files/items'
import { createQueue } from '../../../core/queue'
import { createComposing, type BundleRow, type Reach } from './composing'
import type { LaidOut } from './packing'
import { unpackMembers } from './zipMembers'
import { laterTrouble } from '../../log'

/** Members told to the desk; more would only be scrolled past. */
const MOST_LISTED = 2000

/** A zip is laid out for the first who has it; most bundles change more often than they are downloaded. */
function layOutWhenAsked(packed: string, facts: Omit<LaidOut, 'layout'>): LaidOut {
  let layout: ZipLayout | undefined
  return { ...facts, get layout() { return layout ??= new ZipLayout(unpackMembers(packed)) } }
}

const meet = (large: ReadonlySet<string>, small: ReadonlySet<string>) => [...small].some(id => large.has(id))

/** Zips composed of files and folders of the library, put together as they are sent; kept true to what is in them. */
export function createBundles(db: Database, events: Events) {
  const composing = createComposing(db)
  const laid = new LRUCache<string, LaidOut>({ max: 200 })
  const reaches = new Map<string, Reach>()
  const oneAtATime = createQueue()
  let suspects = new Set<string>()
  let allSuspect = true
  /** what was in doubt is being looked at: what is laid out may be out of date until that has ended */
  let looking = false

  const soon = () => void setImmediate(() => freshen().catch(laterTrouble('bundles could not be brought up to date yet')))
  events.on('library', (ids) => {
    ids.forEach(id => suspects.add(id))
    soon()
  })
  events.on('folders', () => {
    allSuspect = true
    soon()
  })

  async function rowOf(tx: Queryable, id: string): Promise<BundleRow | undefined> {
    return (await tx.select().from(bundles).where(eq(bundles.fileId, id)))[0]
  }

  /** Brings what is said of a bundle up to date. */
  async function layOut(id: string): Promise<void> {
    const row = await rowOf(db, id)
    if (!row) {
      reaches.delete(id)
      laid.delete(id)
      return
    }
    const { packed, fingerprint, size, total, reach } = await composing.compose(row)
    const same = fingerprint === row.fingerprint
    const changed = same ? row.changed : new Date()
    if (!same) await db.update(bundles).set({ fingerprint, changed, size, count: total }).where(eq(bundles.fileId, id))
    reaches.set(id, reach)
    laid.set(id, layOutWhenAsked(packed, { fileName: row.fileName, fingerprint, changed }))
  }

  /** Of the files that changed, the bundles they are in, were in, or are. */
  async function affected(ids: Set<string>): Promise<Set<string>> {
    const found = new Set<string>()
    const rows = await db.select({ id: files.id, folder: files.folder, bundle: bundles.fileId }).from(files)
      .leftJoin(bundles, eq(bundles.fileId, files.id)).where(inArray(files.id, [...ids]))
    const folders = new Set(rows.flatMap(({ folder }) => folder ?? []))
    for (const { bundle } of rows) if (bundle) found.add(bundle)
    for (const [bundle, reach] of reaches) {
      if (meet(reach.files, ids) || meet(reach.folders, folders)) found.add(bundle)
    }
    return found
  }

  async function refresh(): Promise<void> {
    const [ids, all] = [suspects, allSuspect]
    suspects = new Set()
    allSuspect = false
    looking = true
    try {
      const stale = all ? new Set((await db.select({ id: bundles.fileId }).from(bundles)).map(row => row.id)) : ids.size ? await affected(ids) : new Set<string>()
      for (const id of stale) await layOut(id)
    }
    catch (error) {
      // What could not be looked at is still in doubt.
      ids.forEach(id => suspects.add(id))
      allSuspect ||= all
      throw error
    }
    finally {
      looking = false
    }
  }

  const freshen = () => oneAtATime(async () => {
    if (suspects.size || allSuspect) await refresh()
  })

  /** @throws Problem 404 where it is no bundle */
  async function laidOut(id: string): Promise<LaidOut> {
    if (suspects.size || allSuspect || looking) await freshen()
    const known = laid.get(id)
    if (known) return known
    await oneAtATime(() => layOut(id))
    const made = laid.get(id)
    if (!made) throw notFound('bundle')
    return made
  }

  async function details(id: string): Promise<BundleDetails> {
    await freshen()
    const row = await rowOf(db, id)
    if (!row) throw notFound('bundle')
    const { now, members, total } = await composing.compose(row, MOST_LISTED)
    return { file: await getFile(db, id), revision: row.revision, entries: row.entries, now, members, total }
  }

  /** @throws Problem 422 where one of the files is a bundle itself */
  async function entriesFor(tx: Queryable, { files: fileIds, folders: folderIds }: Selection): Promise<BundleEntry[]> {
    const [items, tree] = [await filesById(tx, fileIds), await readTree(tx)]
    const inner = items.find(item => item.bundle)
    if (inner) throw new Problem(422, `“${inner.title}” is a bundle itself.`, 'Put the files that are in it into this bundle instead.')
    folderIds.forEach(id => mustHave(tree, id))
    const there = new Map(items.map(item => [item.id, item]))
    return [
      ...fileIds.filter(id => there.get(id)?.deleted === null).map((file): BundleEntry => ({ id: newId(), kind: 'file', file, within: '', name: null })),
      ...folderIds.map((folder): BundleEntry => ({ id: newId(), kind: 'folder', folder, within: '', name: null })),
    ]
  }

  async function write(id: string, revision: number | undefined, make: (entries: BundleEntry[], tx: Queryable) => Promise<BundleEntry[]>): Promise<BundleDetails> {
    await db.transaction(async (tx) => {
      const row = await rowOf(tx, id)
      if (!row) throw notFound('bundle')
      if (revision !== undefined && revision !== row.revision) {
        throw new Problem(409, 'The bundle was changed in another window.', 'Look at it as it is now, then change it again.')
      }
      const entries = await make(row.entries, tx)
      if (new Set(entries.map(entry => entry.id)).size < entries.length) throw new Problem(422, 'Two entries have the same identity.', 'Load the bundle again, then change it.')
      await tx.update(bundles).set({ entries, revision: row.revision + 1, composed: new Date() }).where(eq(bundles.fileId, id))
      await tx.update(files).set({ changed: new Date() }).where(eq(files.id, id))
    })
    return details(id)
  }

  return {
    laidOut,
    details,

    /** Makes a bundle of a selection, in a folder of the library. */
    async create({ title, folder, files: fileIds, folders: folderIds }: NewBundle): Promise<FileItem> {
      const id = newId()
      await db.transaction(async (tx) => {
        const tree = await readTree(tx)
        mustHave(tree, folder)
        const fileName = cleanFileName(`${title}.zip`)
        await tx.insert(files).values({ id, title, handle: await freeHandle(tx, fileName), edition: 1, folder, position: await nextPosition(tx, folder) })
        await tx.insert(bundles).values({ fileId: id, fileName, entries: await entriesFor(tx, { files: fileIds, folders: folderIds }), size: 0, count: 0, fingerprint: '' })
      })
      await freshen()
      return getFile(db, id)
    },

    /** Composes it anew. */
    change: (id: string, { entries, revision }: BundleChange): Promise<BundleDetails> => write(id, revision, async () => entries),

    /** Puts files and folders in behind what is there; what is in it already stays once. */
    add: (id: string, selection: Selection): Promise<BundleDetails> => write(id, undefined, async (entries, tx) => {
      const there = new Set(entries.map(broughtBy))
      const more = (await entriesFor(tx, selection)).filter(entry => !there.has(broughtBy(entry)))
      return [...entries, ...more]
    }),

    /** The bundles a file is in, by itself or with a folder. */
    async holding(fileId: string): Promise<FileItem[]> {
      await freshen()
      return (await filesById(db, [...reaches].flatMap(([id, reach]) => reach.files.has(fileId) ? [id] : []))).filter(file => !file.deleted)
    },

    /** Waits until every change so far is taken in. */
    settled: freshen,

    async close(): Promise<void> {
      await freshen()
      await composing.close()
    },
  }
}
export type Bundles = ReturnType<typeof createBundles>
