import { and, desc, eq, isNotNull, isNull, lt, sql } from 'drizzle-orm'
import { entrySlug } from '../../../core/catalogue/catalogue'
import type { BinnedEntry, EntryChange, EntryItem, EntryList, EntryVersion, LedEntry, Values } from '../../../core/catalogue/entry'
import { titleOf } from '../../../core/catalogue/values'
import { fold } from '../../../core/find/fold'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { entries, entryVersions, retiredEntrySlugs } from '../../db/schema'
import { holdCatalogue, isWaiting } from './catalogueRows'
import type { EntryIndex } from './entryIndex'
import {
  holdEntries,
  insertEntries,
  mustBeUnique,
  mustFit,
  mustHaveName,
  recordEntryFiles,
  restoreEntries,
  writeValues,
} from './entryWriting'

/** Entries that are found by a name. */
const MOST_LED = 8
/** Versions that are told at once. */
const MOST_VERSIONS = 50
const among = (ids: string[]) => sql`${entries.id} = any(${sql.param(ids)}::text[])`

/** Cells of a row as they shall be. */
const changedValues = (before: Values, change: EntryChange['values']): Values => {
  const values = { ...before }
  for (const [id, value] of Object.entries(change)) {
    if (value === null || value === '' || (Array.isArray(value) && !value.length)) delete values[id]
    else values[id] = value
  }
  return values
}

/** Entries: written, put in order, put live, put in the bin. */
export function createEntries(db: Database, index: EntryIndex) {
  async function itemsOf(catalogue: string, ids: string[]): Promise<EntryItem[]> {
    const wanted = new Set(ids)
    return (await index.entriesOf(catalogue)).all.filter(({ id }) => wanted.has(id))
  }

  async function shelvedOf(catalogue: string) {
    if (!(await index.catalogue(catalogue))) throw notFound('catalogue')
    return index.entriesOf(catalogue)
  }

  async function catalogueOf(q: Queryable, entry: string): Promise<string> {
    const [row] = await q.select({ catalogueId: entries.catalogueId }).from(entries).where(eq(entries.id, entry))
    if (!row) throw notFound('entry')
    return row.catalogueId
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
      for (const { id: catalogue, slug, layout } of await index.catalogues()) {
        for (const entry of (await index.entriesOf(catalogue)).all) {
          const title = titleOf(entry.values)
          const isWanted = wanted.has(entry.id) || (words && found.length < MOST_LED && fold(title).includes(words))
          if (isWanted)
            found.push({ id: entry.id, title, slug: entrySlug(slug, entry.slug), catalogue, live: entry.live && layout !== null })
        }
      }
      return found
    },

    /** Makes entries at the end of a catalogue. @throws Problem 422 with the field */
    async create(catalogueId: string, all: Values[]): Promise<EntryItem[]> {
      const made = await db.transaction(async tx => {
        const catalogue = await holdCatalogue(tx, catalogueId)
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
      const catalogueId = await catalogueOf(db, id)
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
    async publish(
      catalogueId: string,
      ids: string[] | undefined,
      by = '',
    ): Promise<{ live: number; lacking: { id: string; title: string; field: string }[] }> {
      return db.transaction(async tx => {
        const catalogue = await holdCatalogue(tx, catalogueId)
        const rows = await tx
          .select({ id: entries.id, values: entries.values })
          .from(entries)
          .where(and(eq(entries.catalogueId, catalogueId), isNull(entries.deleted), isWaiting, ids && among(ids)))
          .for('update')
        const required = catalogue.fields.filter(field => field.required)
        const lacks = ({ values }: { values: Values }) => required.find(({ id }) => values[id] === undefined)
        const ready = rows.filter(row => !lacks(row))
        const readyIds = ready.map(({ id }) => id)
        if (ready.length) {
          await tx.execute(sql`insert into entry_versions (entry_id, number, "values", by)
            select ${entries.id}, coalesce((select max(number) from entry_versions where entry_id = ${entries.id}), 0) + 1, ${entries.values}, ${by}
            from ${entries} where ${among(readyIds)}`)
          await tx
            .update(entries)
            .set({ live: sql`${entries.values}`, published: new Date() })
            .where(among(readyIds))
          await recordEntryFiles(tx, catalogue.fields, 'live', ready)
        }
        return {
          live: ready.length,
          lacking: rows.flatMap(row => {
            const field = lacks(row)
            return field ? [{ id: row.id, title: titleOf(row.values), field: field.name }] : []
          }),
        }
      })
    },

    /** The states of an entry that were live, the newest first. @throws Problem 404 */
    async versions(id: string): Promise<EntryVersion[]> {
      await catalogueOf(db, id)
      const rows = await db
        .select()
        .from(entryVersions)
        .where(eq(entryVersions.entryId, id))
        .orderBy(desc(entryVersions.number))
        .limit(MOST_VERSIONS)
      return rows.map(({ number, values, published, by }) => ({ number, values, published: published.toISOString(), by }))
    },

    /** Takes entries from visitors; what is written stays. */
    async unpublish(catalogueId: string, ids: string[]): Promise<void> {
      await db.transaction(async tx => {
        const { fields } = await holdCatalogue(tx, catalogueId)
        const rows = await tx
          .update(entries)
          .set({ live: null, published: null })
          .where(and(eq(entries.catalogueId, catalogueId), among(ids), isNotNull(entries.live)))
          .returning({ id: entries.id })
        await recordEntryFiles(
          tx,
          fields,
          'live',
          rows.map(({ id }) => ({ id, values: null })),
        )
      })
    },

    /** Puts entries in the bin: visitors see them no more. */
    async remove(catalogueId: string, ids: string[]): Promise<void> {
      await db.transaction(async tx => {
        await holdCatalogue(tx, catalogueId)
        await tx
          .update(entries)
          .set({ deleted: new Date() })
          .where(and(eq(entries.catalogueId, catalogueId), among(ids), isNull(entries.deleted)))
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
