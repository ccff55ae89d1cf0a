import { crc32 } from 'node:zlib'
import { and, eq, inArray, isNull, or } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { broughtBy, type BundleChange, type BundleDetails, type BundleEntry, type NewBundle } from '../../../core/bundle/contents'
import { resolveBundle, type BundleMember } from '../../../core/bundle/members'
import type { FileItem } from '../../../core/files/item'
import { cleanFileName } from '../../../core/files/fileName'
import type { Selection } from '../../../core/files/selection'
import type { Tree } from '../../../core/folders/tree'
import { groupBy } from '../../../core/group'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import { ZipLayout, type ZipMember } from '../../../core/zip/layout'
import type { Database, Queryable } from '../../db/connection'
import { blobs, bundles, editions, files } from '../../db/schema'
import type { Events } from '../events'
import { freeHandle } from '../library/handles'
import { mustHave, readTree, type FolderRow } from '../library/folders'
import { nextPosition } from '../library/intake'
import { filesById, getFile } from '../library/items'
import { createQueue } from '../../../core/queue'
import { fingerprintOf, type LaidOut } from './packing'
import { laterTrouble } from '../../log'

/** Members told to the desk; more would only be scrolled past. */
const MOST_LISTED = 2000

type Row = typeof bundles.$inferSelect
type Stored = { id: string, folder: string | null, fileName: string, sha256: string, size: number, crc32: number, created: Date }

/** What a bundle depends on: a change of any of these may change it. */
interface Reach { files: Set<string>, folders: Set<string> }

interface Composed { row: Row, tree: Tree<FolderRow>, stored: Map<string, Stored>, members: BundleMember<Stored>[], reach: Reach }

function toZipMember(member: BundleMember<Stored>, composed: Date): ZipMember {
  if ('file' in member) {
    const { size, crc32: crc, created, sha256 } = member.file
    return { name: member.path, size, crc32: crc, modified: created, source: sha256 }
  }
  // Readers of texts on any desktop know these line ends.
  const bytes = Buffer.from(member.body.replace(/\r?\n/g, '\r\n'))
  return { name: member.path, size: bytes.length, crc32: crc32(bytes), modified: composed, source: bytes }
}

const meet = (large: ReadonlySet<string>, small: ReadonlySet<string>) => [...small].some(id => large.has(id))

/** Zips composed of files and folders of the library, put together as they are sent; kept true to what is in them. */
export function createBundles(db: Database, events: Events) {
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

  async function rowOf(tx: Queryable, id: string): Promise<Row | undefined> {
    return (await tx.select().from(bundles).where(eq(bundles.fileId, id)))[0]
  }

  async function readStored(fileIds: string[], folderIds: string[]): Promise<Stored[]> {
    if (!fileIds.length && !folderIds.length) return []
    return db.select({
      id: files.id, folder: files.folder, fileName: editions.fileName, sha256: blobs.sha256, size: blobs.size, crc32: blobs.crc32, created: editions.created,
    }).from(files).innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition))).innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .where(and(isNull(files.deleted), eq(editions.withdrawn, false), or(fileIds.length ? inArray(files.id, fileIds) : undefined, folderIds.length ? inArray(files.folder, folderIds) : undefined)))
  }

  async function compose(row: Row): Promise<Composed> {
    const tree = await readTree(db)
    const belowOf = (folder: string) => tree.below(folder).map(({ id }) => id)
    const explicit = row.entries.flatMap(entry => entry.kind === 'file' ? [entry.file] : [])
    const tops = row.entries.flatMap(entry => entry.kind === 'folder' ? [entry.folder] : [])
    const folders = new Set([...tops, ...tops.flatMap(belowOf)])
    const rows = await readStored(explicit, [...folders])
    const stored = new Map(rows.map(file => [file.id, file]))
    const byFolder = groupBy(rows, file => file.folder)
    const folderOf = (id: string) => {
      const top = tree.get(id)
      if (!top) return undefined
      const depth = tree.pathTo(id).length
      const inside = belowOf(id).flatMap((folder) => {
        const way = tree.pathTo(folder).slice(depth).map(({ name }) => `${name}/`).join('')
        return (byFolder.get(folder) ?? []).map(file => ({ path: way + file.fileName, file }))
      })
      // In one order wherever and whenever it is made; files of the same name in the order of their identities.
      return { name: top.name, files: inside.sort((a, b) => a.path === b.path ? a.file.id < b.file.id ? -1 : 1 : a.path < b.path ? -1 : 1) }
    }
    const members = resolveBundle(row.entries, { file: id => stored.get(id), folder: folderOf })
    return { row, tree, stored, members, reach: { files: new Set([...explicit, ...stored.keys()]), folders } }
  }

  /** Brings what is said of a bundle up to date. */
  async function layOut(id: string): Promise<void> {
    const row = await rowOf(db, id)
    if (!row) {
      reaches.delete(id)
      laid.delete(id)
      return
    }
    const { members, reach } = await compose(row)
    const zipMembers = members.map(member => toZipMember(member, row.composed))
    const fingerprint = fingerprintOf(zipMembers)
    const layout = new ZipLayout(zipMembers)
    const same = fingerprint === row.fingerprint
    const changed = same ? row.changed : new Date()
    if (!same) await db.update(bundles).set({ fingerprint, changed, size: layout.size, count: members.length }).where(eq(bundles.fileId, id))
    reaches.set(id, reach)
    laid.set(id, { layout, fileName: row.fileName, fingerprint, changed })
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
    const { tree, stored, members } = await compose(row)
    const byEntry = groupBy(members, member => member.entry)
    const sizeOf = (member: BundleMember<Stored>) => 'file' in member ? member.file.size : Buffer.byteLength(member.body)
    const now = Object.fromEntries(row.entries.map((entry) => {
      const own = entry.kind === 'text' ? entry.name : (entry.kind === 'file' ? stored.get(entry.file)?.fileName : tree.get(entry.folder)?.name)
      const inside = byEntry.get(entry.id) ?? []
      const path = entry.kind === 'folder' ? [entry.within, entry.name ?? own].filter(Boolean).join('/') : inside[0]?.path ?? ''
      return [entry.id, { gone: own === undefined, own: own ?? '', path, files: inside.length, size: inside.reduce((sum, member) => sum + sizeOf(member), 0) }]
    }))
    return {
      file: await getFile(db, id), revision: row.revision, entries: row.entries, now, total: members.length,
      members: members.slice(0, MOST_LISTED).map(member => ({ path: member.path, size: sizeOf(member) })),
    }
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
  }
}
export type Bundles = ReturnType<typeof createBundles>
