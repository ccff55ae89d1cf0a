import { and, desc, eq, isNotNull, isNull, lt, sql } from 'drizzle-orm'
import { entrySlug } from '../../../core/catalogue/catalogue'
import type {
  BinnedEntry,
  EntryChange,
  EntryItem,
  EntryList,
  EntryPlace,
  EntryVersion,
  LedEntry,
  Values,
} from '../../../core/catalogue/entry'
import { initialValues, titleOf } from '../../../core/catalogue/values'
import { fold } from '../../../core/find/fold'
import { Problem, notFound } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { entries, entryVersions, pages, retiredEntrySlugs, uses } from '../../db/schema'
import { entryAddress } from '../uses/recording'
import { holdCatalogue, isWaiting, mustHaveMany } from './catalogueRows'
import type { EntryIndex } from './entryIndex'
import {
  holdEntries,
  insertEntries,
  mustBeUnique,
  mustFit,
  mustHaveName,
  recordEntryFiles,
  restoreEntries,
  showEntries,
  writeValues,
} from './entryWriting'

/** Entries that are found by a name. */
const MOST_LED = 8
/** Versions that are told at once. */
const MOST_VERSIONS = 50

/** How many went live, and those that could not, with what they lack. */
export interface Published {
  live: number
  lacking: { id: string; title: string; field: string }[]
}

const folded = new WeakMap<EntryItem, string>()
/** The name of an entry as it is looked for; kept for as long as the entry is, since it is asked for with each key that is pressed. */
function foldedTitle(entry: EntryItem): string {
  const known = folded.get(entry) ?? fold(titleOf(entry.values))
  folded.set(entry, known)
  return known
}

/** Cells of a row as they shall be. */
const changedValues = (before: Values, change: EntryChange['values']): Values => {
  const values = { ...before }
  for (const [id, value] of Object.entries(change)) {
    if (value === null || value === '' || (Array.isArray(value) && !value.length)) delete values[id]
    else values[id] = value
  }
  return values
}

/** Pages on which something leads to one of some entries, drafts too. */
const leadingTo = (q: Queryable, ids: string[]): Promise<EntryPlace[]> =>
  q
    .selectDistinct({ id: pages.id, title: pages.title })
    .from(uses)
    .innerJoin(pages, eq(pages.id, uses.pageId))
    .where(
      among(
        uses.address,
        ids.map(id => entryAddress(id)),
      ),
    )
    .orderBy(pages.title)

/** @throws Problem 409 where something on a page leads to one of some entries */
async function mustNotBeLedTo(tx: Queryable, ids: string[]): Promise<void> {
  const rows = await leadingTo(tx, ids)
  if (!rows.length) return
  const titles = rows.map(({ title }) => title)
  const named = titles.slice(0, 3).map(title => `“${title}”`)
  throw new Problem(
    409,
    `Something on ${named.join(', ')}${titles.length > 3 ? ' and other pages' : ''} leads there.`,
    'It would lead nowhere. Lead it elsewhere first, or go on all the same.',
    { pages: titles },
  )
}

export function createEntries(db: Database, index: EntryIndex) {
  /** Puts entries live in the caller's transaction: those named, or all that wait. */
  async function publishIn(tx: Queryable, catalogueId: string, ids: string[] | undefined, by: string): Promise<Published> {
    const catalogue = await holdCatalogue(tx, catalogueId)
    const rows = await tx
      .select({ id: entries.id, values: entries.values })
      .from(entries)
      .where(and(eq(entries.catalogueId, catalogueId), isNull(entries.deleted), isWaiting, ids && among(entries.id, ids)))
      .for('update')
    const required = catalogue.fields.filter(field => field.required)
    const lacks = ({ values }: { values: Values }) => required.find(({ id }) => values[id] === undefined)
    const ready = rows.filter(row => !lacks(row))
    await showEntries(tx, catalogue.fields, ready, by)
    return {
      live: ready.length,
      lacking: rows.flatMap(row => {
        const field = lacks(row)
        return field ? [{ id: row.id, title: titleOf(row.values), field: field.name }] : []
      }),
    }
  }

  async function unpublishIn(tx: Queryable, catalogueId: string, ids: string[]): Promise<void> {
    const { fields } = await holdCatalogue(tx, catalogueId)
    const rows = await tx
      .update(entries)
      .set({ live: null, published: null })
      .where(and(eq(entries.catalogueId, catalogueId), among(entries.id, ids), isNotNull(entries.live)))
      .returning({ id: entries.id })
    await recordEntryFiles(
      tx,
      fields,
      'live',
      rows.map(({ id }) => ({ id, values: null })),
    )
  }

  async function itemsOf(catalogue: string, ids: string[]): Promise<EntryItem[]> {
    const wanted = new Set(ids)
    return (await index.entriesOf(catalogue)).all.filter(({ id }) => wanted.has(id))
  }

  async function shelvedOf(catalogue: string) {
    if (!(await index.catalogue(catalogue))) throw notFound('catalogue')
    return index.entriesOf(catalogue)
  }

  async function entryIn(q: Queryable, id: string) {
    const { catalogueId, values, deleted } = entries
    const [row] = await q.select({ catalogueId, values, deleted }).from(entries).where(eq(entries.id, id))
    if (!row) throw notFound('entry')
    return row
  }

  return {
    /** All entries, in their own order. @throws Problem 404 */
    list: async (catalogue: string): Promise<EntryItem[]> => (await shelvedOf(catalogue)).all,

    /** The first of them, or those that have changed since a state that is known. @throws Problem 404 */
    async listSince(catalogue: string, { first, since }: { first?: number; since?: string }): Promise<EntryList> {
      const { all, state } = await shelvedOf(catalogue)
      const changed = since === undefined ? undefined : state.changedSince(since)
      return { items: changed ? all.filter(({ id }) => changed.has(id)) : all.slice(0, first), whole: !changed, stamp: state.stamp }
    },

    /** Entries by part of their names, or by their identities. */
    async led({ q, ids }: { q: string; ids: string[] }): Promise<LedEntry[]> {
      const [words, wanted] = [fold(q.trim()), new Set(ids)]
      const found: LedEntry[] = []
      for (const { id: catalogue, slug, layout, ofSite } of await index.catalogues()) {
        if (ofSite || (!wanted.size && found.length >= MOST_LED)) continue
        for (const entry of (await index.entriesOf(catalogue)).all) {
          const isWanted = wanted.has(entry.id) || (words && found.length < MOST_LED && foldedTitle(entry).includes(words))
          if (isWanted)
            found.push({
              id: entry.id,
              title: titleOf(entry.values),
              slug: entrySlug(slug, entry.slug),
              catalogue,
              live: entry.live && layout !== null,
            })
        }
      }
      return found
    },

    /** Makes entries at the end of a catalogue. @throws Problem 422 with the field */
    async create(catalogueId: string, given: Values[], { copies = false } = {}): Promise<EntryItem[]> {
      const made = await db.transaction(async tx => {
        const catalogue = await holdCatalogue(tx, catalogueId)
        mustHaveMany(catalogue, 'It has one row, with what is the same on all pages.')
        const begin = copies ? {} : initialValues(catalogue.fields)
        const all = given.map(values => ({ ...begin, ...values }))
        for (const [at, values] of all.entries()) {
          mustHaveName(values)
          mustFit(catalogue.fields, values, { row: at })
        }
        const rows = await insertEntries(tx, catalogue, all)
        const ids = rows.map(({ id }) => id)
        await mustBeUnique(tx, catalogue, ids)
        return ids
      })
      return itemsOf(catalogueId, made)
    },

    /**
     * Changes cells of entries, all or none.
     *
     * @throws Problem 409 with the entries in `changed` where somebody else changed the same cells since, 422 with entry and field
     */
    async change(catalogueId: string, changes: (EntryChange & { id: string })[]): Promise<EntryItem[]> {
      await db.transaction(async tx => {
        const catalogue = await holdCatalogue(tx, catalogueId)
        const rows = new Map(
          (
            await holdEntries(
              tx,
              catalogueId,
              changes.map(({ id }) => id),
            )
          ).map(row => [row.id, row]),
        )
        const written = changes.map(({ id, values: change, revision }) => {
          const row = rows.get(id)
          if (!row) throw new Problem(409, 'An entry that was written in is in the bin, or gone.', 'Load the table again.', { entry: id })
          if (row.revision !== revision)
            throw new Problem(
              409,
              `“${titleOf(row.values)}” was changed somewhere else.`,
              'It is loaded anew; write what you meant into it.',
              {
                entry: id,
              },
            )
          const values = changedValues(row.values, change)
          mustHaveName(values)
          mustFit(
            catalogue.fields,
            Object.fromEntries(Object.keys(change).flatMap(field => (values[field] === undefined ? [] : [[field, values[field]]]))),
            { entry: id },
          )
          return { id, values }
        })
        await writeValues(tx, catalogue.fields, written)
        const touched = new Set(changes.flatMap(({ values }) => Object.keys(values)))
        await mustBeUnique(
          tx,
          { id: catalogueId, fields: catalogue.fields.filter(({ id }) => touched.has(id)) },
          written.map(({ id }) => id),
        )
      })
      return itemsOf(
        catalogueId,
        changes.map(({ id }) => id),
      )
    },

    /** Gives entries their order; those that are not named come after, as they were. */
    async order(catalogueId: string, ids: string[]): Promise<void> {
      await db.transaction(async tx => {
        await holdCatalogue(tx, catalogueId)
        await tx.execute(sql`update ${entries} set place = ordered.place from (
            select e.id, (row_number() over (order by named.at nulls last, e.place))::int as place
            from ${entries} as e left join unnest(${sql.param(ids)}::text[]) with ordinality as named(id, at) on named.id = e.id
            where e.catalogue_id = ${catalogueId} and e.deleted is null) as ordered
          where ${entries.id} = ordered.id and ${entries.place} <> ordered.place`)
      })
    },

    /** Moves an entry to another address; the one it had redirects from then on. @throws Problem 409 */
    async moveTo(id: string, slug: string): Promise<EntryItem> {
      const { catalogueId } = await entryIn(db, id)
      await db.transaction(async tx => {
        await holdCatalogue(tx, catalogueId)
        const [row] = await holdEntries(tx, catalogueId, [id])
        if (!row) throw notFound('entry')
        if (row.slug === slug) return
        const [holder] = await tx
          .select({ values: entries.values })
          .from(entries)
          .where(and(eq(entries.catalogueId, catalogueId), eq(entries.slug, slug), isNull(entries.deleted)))
        if (holder) throw new Problem(409, `“${titleOf(holder.values)}” has this address.`, 'Choose another.', { field: 'slug' })
        await tx.delete(retiredEntrySlugs).where(and(eq(retiredEntrySlugs.catalogueId, catalogueId), eq(retiredEntrySlugs.slug, slug)))
        await tx.update(entries).set({ slug }).where(eq(entries.id, id))
        await tx.insert(retiredEntrySlugs).values({ catalogueId, slug: row.slug, entryId: id })
      })
      return (await itemsOf(catalogueId, [id]))[0]!
    },

    /**
     * Puts entries live as they are written: those named, or all that wait.
     *
     * @returns how many went live, and those that cannot, with the fields they lack
     */
    publish: (catalogueId: string, ids: string[] | undefined, by = ''): Promise<Published> =>
      db.transaction(tx => publishIn(tx, catalogueId, ids, by)),

    /** Pages on which something leads to an entry. @throws Problem 404 */
    async places(id: string): Promise<EntryPlace[]> {
      await entryIn(db, id)
      return leadingTo(db, [id])
    },

    /** The states of an entry that were live, the newest first. @throws Problem 404 */
    async versions(id: string): Promise<EntryVersion[]> {
      await entryIn(db, id)
      const rows = await db
        .select()
        .from(entryVersions)
        .where(eq(entryVersions.entryId, id))
        .orderBy(desc(entryVersions.number))
        .limit(MOST_VERSIONS)
      return rows.map(({ number, values, published, by }) => ({ number, values, published: published.toISOString(), by }))
    },

    /** Takes entries from visitors; what is written stays. */
    unpublish: (catalogueId: string, ids: string[]): Promise<void> => db.transaction(tx => unpublishIn(tx, catalogueId, ids)),

    /** Puts an entry live at its set time. @throws Problem 404, or 409 where it lacks something or is in the bin */
    async goLiveIn(tx: Queryable, id: string): Promise<void> {
      const { catalogueId, values, deleted } = await entryIn(tx, id)
      if (deleted) throw new Problem(409, `“${titleOf(values)}” is in the bin.`, 'Restore it first.')
      const { lacking } = await publishIn(tx, catalogueId, [id], '')
      if (lacking[0])
        throw new Problem(409, `“${titleOf(values)}” has nothing in “${lacking[0].field}”.`, 'Fill it in before it can go live.')
    },

    /** Takes an entry from visitors at its set time. @throws Problem 404 */
    leaveIn: async (tx: Queryable, id: string): Promise<void> => unpublishIn(tx, (await entryIn(tx, id)).catalogueId, [id]),

    /**
     * Puts entries in the bin: visitors see them no more.
     *
     * @throws Problem 409 where something on a page leads to one of them and `despite` is not set: the pages' titles, in `pages`
     */
    async remove(catalogueId: string, ids: string[], { despite = false } = {}): Promise<void> {
      await db.transaction(async tx => {
        if (!despite) await mustNotBeLedTo(tx, ids)
        mustHaveMany(await holdCatalogue(tx, catalogueId), 'Empty its fields, or take them out.')
        await tx
          .update(entries)
          .set({ deleted: new Date() })
          .where(and(eq(entries.catalogueId, catalogueId), among(entries.id, ids), isNull(entries.deleted)))
      })
    },

    async binned(catalogueId: string): Promise<BinnedEntry[]> {
      const rows = await db
        .select({ id: entries.id, values: entries.values, deleted: entries.deleted })
        .from(entries)
        .where(and(eq(entries.catalogueId, catalogueId), isNotNull(entries.deleted)))
        .orderBy(desc(entries.deleted))
      return rows.map(({ id, values, deleted }) => ({ id, title: titleOf(values), deleted: deleted!.toISOString() }))
    },

    /** Takes entries out of the bin, as they were; one whose address another has meanwhile gets another one. */
    async restore(catalogueId: string, ids: string[]): Promise<void> {
      await db.transaction(async tx => {
        const catalogue = await holdCatalogue(tx, catalogueId)
        await restoreEntries(tx, catalogueId, ids)
        await mustBeUnique(tx, catalogue, ids)
      })
    },

    /** Forgets entries that were put in the bin before a moment. */
    async clean(before: Date): Promise<number> {
      const gone = await db.delete(entries).where(lt(entries.deleted, before)).returning({ id: entries.id })
      return gone.length
    },
  }
}
export type Entries = ReturnType<typeof createEntries>
