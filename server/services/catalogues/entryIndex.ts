import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import type { EntryItem, LiveEntry } from '../../../core/catalogue/entry'
import type { Catalogue } from '../../../core/catalogue/catalogue'
import { titleOf } from '../../../core/catalogue/values'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { entries, retiredCatalogueSlugs, retiredEntrySlugs } from '../../db/schema'
import type { Events } from '../events'
import { kept } from '../kept'
import { catalogueDefinitions, type EntryRow } from './catalogueRows'
import { firstState, type State } from './states'

type Held = Pick<EntryRow, 'id' | 'slug' | 'values' | 'live' | 'place' | 'revision'> & { published: string | null; changed: string }

/** The entries of one catalogue. */
interface Shelved {
  /** of each, in its own order */
  places: Map<string, number>
  /** as the desk lists them, in their own order */
  all: EntryItem[]
  /** as visitors get them, in their own order */
  live: LiveEntry[]
  byId: Map<string, LiveEntry>
  bySlug: Map<string, LiveEntry>
  /** known from where on none came, went or moved */
  state: State
}

const toItem = ({ id, slug, values, live, revision, changed }: Held): EntryItem => ({
  id,
  slug,
  values,
  live: live !== null,
  waiting: JSON.stringify(live) !== JSON.stringify(values),
  revision,
  changed,
})

/** Entries in memory: lists are searched and sorted without asking the database, and what changes is put right one by one. */
export function createEntryIndex(db: Database, events: Events) {
  let former: Catalogue[] = []
  const all = kept(async () => {
    const now = await catalogueDefinitions(db)
    // Fields that are as they were stay the same object: what was worked out with them holds.
    former = now.map(catalogue => {
      const fields = former.find(({ id }) => id === catalogue.id)?.fields
      return fields && JSON.stringify(fields) === JSON.stringify(catalogue.fields) ? { ...catalogue, fields } : catalogue
    })
    return former
  })
  const shelved = new Map<string, Promise<Shelved>>()
  /** entries that were touched since their catalogue was read */
  const touched = new Map<string, Set<string>>()

  const columns = {
    id: entries.id,
    slug: entries.slug,
    values: entries.values,
    live: entries.live,
    place: entries.place,
    revision: entries.revision,
    published: sql<string | null>`to_char(${entries.published} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`,
    changed: sql<string>`to_char(${entries.changed} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`,
  }

  const liveOf = ({ id, slug, live, published }: Held): LiveEntry | undefined =>
    live ? { id, slug, values: live, published: published ?? '' } : undefined

  const shelve = (rows: Held[], all: EntryItem[], live: LiveEntry[]): Shelved => ({
    places: new Map(rows.map(({ id, place }) => [id, place])),
    all,
    live,
    byId: new Map(live.map(entry => [entry.id, entry])),
    bySlug: new Map(live.map(entry => [entry.slug, entry])),
    state: firstState(),
  })

  async function readAll(catalogue: string): Promise<Shelved> {
    const rows = await db
      .select(columns)
      .from(entries)
      .where(and(eq(entries.catalogueId, catalogue), isNull(entries.deleted)))
      .orderBy(asc(entries.place))
    return shelve(
      rows,
      rows.map(toItem),
      rows.flatMap(row => liveOf(row) ?? []),
    )
  }

  /** Reads those entries anew that were touched; what did not change is the same object: what was worked out of it holds. */
  async function putRight(catalogue: string, before: Shelved, ids: Set<string>): Promise<Shelved> {
    const rows = await db
      .select(columns)
      .from(entries)
      .where(and(eq(entries.catalogueId, catalogue), isNull(entries.deleted), among(entries.id, ids)))
    const read = new Map(rows.map(row => [row.id, row]))
    const stands =
      rows.every(({ id, place }) => before.places.get(id) === place) && [...ids].every(id => read.has(id) || !before.places.has(id))
    // Where none came, went or moved, each has its place in the list.
    if (stands && rows.every(({ id, live }) => (live !== null) === before.byId.has(id))) {
      for (const { id } of rows) before.bySlug.delete(before.byId.get(id)?.slug ?? '')
      const made = new Map(rows.flatMap(row => liveOf(row) ?? []).map(entry => [entry.id, entry]))
      for (const [id, entry] of made) {
        before.byId.set(id, entry)
        before.bySlug.set(entry.slug, entry)
      }
      const items = new Map(rows.map(row => [row.id, toItem(row)]))
      return {
        ...before,
        all: before.all.map(item => items.get(item.id) ?? item),
        state: before.state.next(items.keys()),
        live: made.size ? before.live.map(entry => made.get(entry.id) ?? entry) : before.live,
      }
    }
    const places = new Map(before.places)
    for (const id of ids) places.delete(id)
    for (const { id, place } of rows) places.set(id, place)
    const ordered = [...places].sort(([, a], [, b]) => a - b).map(([id]) => id)
    const items = new Map(before.all.map(item => [item.id, item]))
    const all = ordered.map(id => (read.has(id) ? toItem(read.get(id)!) : items.get(id)!))
    const live = ordered.flatMap(id => (read.has(id) ? liveOf(read.get(id)!) : before.byId.get(id)) ?? [])
    return { ...shelve([], all, live), places }
  }

  events.on('entries', ids => {
    for (const [catalogue, entry] of ids.map(id => id.split('/') as [string, string])) {
      const those = touched.get(catalogue) ?? new Set()
      touched.set(catalogue, those.add(entry))
    }
  })
  events.on('catalogues', () => {
    all.forget()
    places.forget()
  })
  // What entries are laid out in is a page.
  events.on('live', all.forget)

  /** The entries of a catalogue as they are now. */
  function entriesOf(catalogue: string): Promise<Shelved> {
    const those = touched.get(catalogue)
    const before = shelved.get(catalogue)
    if (before && !those) return before
    touched.delete(catalogue)
    const made = before && those ? before.then(known => putRight(catalogue, known, those)) : readAll(catalogue)
    shelved.set(catalogue, made)
    made.catch(() => shelved.delete(catalogue))
    return made
  }

  /** First parts of addresses, of today and before, with the catalogue they name; and last parts that entries had before. */
  const places = kept(async () => {
    const now = await all.get()
    const former = await db.select().from(retiredCatalogueSlugs)
    const moved = await db.select().from(retiredEntrySlugs)
    return {
      catalogues: new Map([
        ...former.flatMap(({ slug, catalogueId }) => {
          const catalogue = now.find(({ id }) => id === catalogueId)
          return catalogue ? [[slug, catalogue] as const] : []
        }),
        ...now.map(catalogue => [catalogue.slug, catalogue] as const),
      ]),
      moved: new Map(moved.map(({ catalogueId, slug, entryId }) => [`${catalogueId}/${slug}`, entryId])),
    }
  })

  /** The entry that is live at an address, or was there before it moved. */
  async function at(path: string): Promise<{ catalogue: Catalogue; entry: LiveEntry } | undefined> {
    const [first = '', last = '', ...more] = path.split('/')
    if (more.length || !last) return undefined
    const { catalogues: named, moved } = await places.get()
    const catalogue = named.get(first)
    if (!catalogue) return undefined
    const { bySlug, byId } = await entriesOf(catalogue.id)
    const entry = bySlug.get(last) ?? byId.get(moved.get(`${catalogue.id}/${last}`) ?? '')
    return entry && { catalogue, entry }
  }

  /** Entries that are live, with their catalogues, by their identities. */
  async function some(ids: string[]): Promise<Map<string, { catalogue: Catalogue; entry: LiveEntry }>> {
    const found = new Map<string, { catalogue: Catalogue; entry: LiveEntry }>()
    if (!ids.length) return found
    for (const catalogue of await all.get()) {
      const { byId } = await entriesOf(catalogue.id)
      for (const id of ids) {
        const entry = byId.get(id)
        if (entry) found.set(id, { catalogue, entry })
      }
    }
    return found
  }

  return {
    catalogues: (): Promise<Catalogue[]> => all.get(),
    async catalogue(id: string): Promise<Catalogue | undefined> {
      return (await all.get()).find(catalogue => catalogue.id === id)
    },
    entriesOf,
    /** The catalogue at the first part of an address, of today or before. */
    catalogueAt: async (slug: string): Promise<Catalogue | undefined> => (await places.get()).catalogues.get(slug),

    at,

    /** What an entry that is live is called, by where it is or was, or by its identity. */
    named: {
      async at(path: string): Promise<{ id: string; title: string } | undefined> {
        const found = await at(path)
        return found && { id: found.entry.id, title: titleOf(found.entry.values) }
      },
      async byId(id: string): Promise<{ id: string; title: string } | undefined> {
        const entry = (await some([id])).get(id)?.entry
        return entry && { id, title: titleOf(entry.values) }
      },
    },

    some,
  }
}
export type EntryIndex = ReturnType<typeof createEntryIndex>
