import { and, eq, sql } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { filePath } from '../../../core/page/href'
import type { Database } from '../../db/connection'
import { blobs, editions, files, retiredHandles, retiredSignposts, signposts, uses } from '../../db/schema'
import type { Events } from '../events'
import type { Wanted } from '../gates/guard'
import { editionDeliverable, type Deliverable } from './deliverable'
import { createKnownNames, keyOfName } from './knownNames'

/** What an address in `/files/` or `/to/` leads to. */
export type Entry =
  /** `withdrawn` stands in the place of an edition that visitors no longer get */
  | {
      kind: 'file'
      id: string
      wanted: Wanted
      current: Deliverable | 'withdrawn'
      edition: (number: number) => Deliverable | 'withdrawn' | undefined
    }
  | { kind: 'bundle'; id: string; wanted: Wanted }
  | { kind: 'moved'; path: string; wanted?: Wanted }
  | { kind: 'gone'; wanted?: Wanted }
  /** a signpost that points at nothing just now */
  | { kind: 'nowhere' }

type SavedNames = ReadonlyMap<string, string>

const wantedOf = ({ id, gate, folder }: typeof files.$inferSelect): Wanted => ({ id, gate, folder })

/** Finds what handles and signposts lead to; answers from memory until something changes. */
export function createDirectory(db: Database, events: Events) {
  const entries = new LRUCache<string, Entry>({ max: 20_000 })
  /** under which names the files are kept: one of many that change costs the others nothing */
  const keysOf = new Map<string, Set<string>>()
  /** names that lead to no file, or by a signpost: what they lead to may change with any file */
  const others = new Set<string>()
  const given = createKnownNames(db, events)
  let names: SavedNames | undefined
  let namesAge = 0
  /** files and signposts that changed while something is read, for each reading: what was read before is not remembered after */
  const readings = new Set<Set<string>>()

  const drop = (key: string) => entries.delete(key)
  function forget(ids: string[]): void {
    for (const id of ids) {
      for (const touched of readings) touched.add(id)
      keysOf.get(id)?.forEach(drop)
      keysOf.delete(id)
    }
    others.forEach(drop)
    others.clear()
  }
  events.on('library', forget)
  events.on('signposts', forget)
  const forgetNames = () => {
    namesAge++
    names = undefined
  }
  events.on('live', forgetNames)
  events.on('uses', forgetNames)

  function remember(key: string, entry: Entry, signpost: boolean, touched: Set<string>): void {
    const id = signpost ? undefined : entry.kind === 'bundle' || entry.kind === 'file' ? entry.id : undefined
    if (id === undefined ? touched.size : touched.has(id)) return
    entries.set(key, entry)
    if (id === undefined) others.add(key)
    else keysOf.set(id, (keysOf.get(id) ?? new Set()).add(key))
  }

  async function read(handle: string): Promise<Entry | undefined> {
    const [file] = await db.select().from(files).where(eq(files.handle, handle))
    if (!file) {
      const [retired] = await db
        .select({ file: files })
        .from(retiredHandles)
        .leftJoin(files, eq(files.id, retiredHandles.fileId))
        .where(eq(retiredHandles.handle, handle))
      if (!retired) return undefined
      return retired.file === null
        ? { kind: 'gone' }
        : { kind: 'moved', path: filePath(retired.file.handle), wanted: wantedOf(retired.file) }
    }
    return entryOf(file)
  }

  async function readSignpost(name: string): Promise<Entry | undefined> {
    const [found] = await db
      .select({ file: files })
      .from(signposts)
      .leftJoin(files, eq(files.id, signposts.fileId))
      .where(eq(signposts.name, name))
    if (found) return found.file && !found.file.deleted ? entryOf(found.file) : { kind: 'nowhere' }
    const [former] = await db
      .select({ name: signposts.name, file: files })
      .from(retiredSignposts)
      .leftJoin(signposts, eq(signposts.id, retiredSignposts.signpostId))
      .leftJoin(files, eq(files.id, signposts.fileId))
      .where(eq(retiredSignposts.name, name))
    if (!former) return undefined
    return former.name === null
      ? { kind: 'gone' }
      : { kind: 'moved', path: `/to/${former.name}`, ...(former.file && { wanted: wantedOf(former.file) }) }
  }

  async function entryOf(file: typeof files.$inferSelect): Promise<Entry> {
    if (file.deleted) return { kind: 'gone', wanted: wantedOf(file) }
    const rows = await db
      .select({ edition: editions, blob: blobs })
      .from(editions)
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .where(and(eq(editions.fileId, file.id), sql`(${editions.pinned} or ${editions.number} = ${file.edition})`))
    const current = rows.find(row => row.edition.number === file.edition)
    const wanted = wantedOf(file)
    if (!current) return { kind: 'bundle', id: file.id, wanted }
    const byNumber = new Map(
      rows.map(row => [row.edition.number, row.edition.withdrawn ? ('withdrawn' as const) : editionDeliverable(row)]),
    )
    return {
      kind: 'file',
      id: file.id,
      wanted,
      current: current.edition.withdrawn ? 'withdrawn' : editionDeliverable(current, file.changed),
      edition: number => byNumber.get(number),
    }
  }

  /** The current edition of a file, be it in the bin. */
  async function current(fileId: string): Promise<Deliverable | undefined> {
    const [row] = await db
      .select({ edition: editions, blob: blobs, changed: files.changed })
      .from(files)
      .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .where(eq(files.id, fileId))
    return row && editionDeliverable(row, row.changed)
  }

  async function readSavedNames(): Promise<SavedNames> {
    const rows = await db
      .select({ placement: uses.placement, saveAs: uses.saveAs })
      .from(uses)
      .where(and(eq(uses.side, 'live'), sql`${uses.saveAs} <> ''`))
    return new Map(rows.map(({ placement, saveAs }) => [placement, saveAs]))
  }

  return {
    current,

    /**
     * The entry, where it is in memory: a busy file costs no turn of the loop.
     *
     * @param signpost `name` is that of a signpost, not a handle
     */
    known: (name: string, signpost: boolean): Entry | undefined => entries.get(keyOfName(name, signpost)),

    /** The entry; see {@link known}. */
    async find(name: string, signpost: boolean): Promise<Entry | undefined> {
      const key = keyOfName(name, signpost)
      const known = entries.get(key)
      if (known) return known
      if (!(await given.has(key))) return undefined
      const touched = new Set<string>()
      readings.add(touched)
      try {
        const entry = await (signpost ? readSignpost(name) : read(name))
        if (entry) remember(key, entry, signpost, touched)
        return entry
      } finally {
        readings.delete(touched)
      }
    },

    /** The names that live buttons save under, by placement, where their owner chose one; undefined unless they are in memory. */
    knownNames: (): SavedNames | undefined => names,

    /** The same; see {@link knownNames}. */
    async savedNames(): Promise<SavedNames> {
      if (names) return names
      const asked = namesAge
      const read = await readSavedNames()
      if (asked === namesAge) names = read
      return read
    },
  }
}
export type Directory = ReturnType<typeof createDirectory>
