import { and, eq, isNotNull, isNull, sql } from 'drizzle-orm'
import { MOST_ENTRIES, type Values } from '../../../core/catalogue/entry'
import { TITLE, type Field } from '../../../core/catalogue/field'
import { faultOf, filesIn, titleOf, writeCell } from '../../../core/catalogue/values'
import { firstFree } from '../../../core/files/handle'
import { newId } from '../../../core/id'
import { slugOf } from '../../../core/page/slug'
import { Problem } from '../../../core/problem'
import { among } from '../../db/among'
import type { Queryable } from '../../db/connection'
import { insertMany } from '../../db/insertMany'
import { entries, entryFiles, retiredEntrySlugs, type Side } from '../../db/schema'

/** Rows in one statement. */
const AT_ONCE = 500
/** New ones that are made between two turns of the event loop: visitors wait for all of them. */
const MADE_AT_ONCE = 100

/** Writes down which files entries hold, in the transaction that writes the entries. */
export async function recordEntryFiles(
  tx: Queryable,
  fields: Field[],
  side: Side,
  written: { id: string; values: Values | null }[],
): Promise<void> {
  const rows = written.flatMap(({ id, values }) =>
    values
      ? fields.flatMap(field => [...new Set(filesIn([field], values))].map(fileId => ({ entryId: id, side, field: field.id, fileId })))
      : [],
  )
  const ids = written.map(({ id }) => id)
  await tx.delete(entryFiles).where(and(eq(entryFiles.side, side), among(entryFiles.entryId, ids)))
  await insertMany(tx, entryFiles, rows)
}

/** Shows visitors entries as they are written, in the caller's transaction that holds them; what they show is kept as a version. */
export async function showEntries(tx: Queryable, fields: Field[], shown: { id: string; values: Values }[], by: string): Promise<void> {
  if (!shown.length) return
  const those = among(
    entries.id,
    shown.map(({ id }) => id),
  )
  await tx.execute(sql`insert into entry_versions (entry_id, number, "values", by)
    select ${entries.id}, coalesce((select max(number) from entry_versions where entry_id = ${entries.id}), 0) + 1, ${entries.values}, ${by}
    from ${entries} where ${those}`)
  await tx
    .update(entries)
    .set({ live: sql`${entries.values}`, published: new Date() })
    .where(those)
  await recordEntryFiles(tx, fields, 'live', shown)
}

/** The slug an entry's name asks for; cut where it is long. */
const wishedSlug = (values: Values, one: string) => slugOf(titleOf(values)).slice(0, 80).replace(/-+$/, '') || slugOf(one) || 'entry'

/** Writes entries as they shall be, in the caller's transaction that holds them. */
export async function writeValues(tx: Queryable, fields: Field[], written: { id: string; values: Values }[]): Promise<void> {
  for (let at = 0; at < written.length; at += AT_ONCE)
    await tx.execute(sql`update ${entries} set "values" = new."values", revision = ${entries.revision} + 1, changed = now()
      from jsonb_to_recordset(${JSON.stringify(written.slice(at, at + AT_ONCE))}::jsonb) as new(id text, "values" jsonb)
      where ${entries.id} = new.id`)
  if (written.length) await recordEntryFiles(tx, fields, 'draft', written)
}

/** Writes anew what is drafted of entries and what visitors see, in the caller's transaction that holds them. */
export async function rewriteEntries(
  tx: Queryable,
  fields: Field[],
  rows: { id: string; values: Values; live: Values | null }[],
): Promise<void> {
  for (let at = 0; at < rows.length; at += AT_ONCE) {
    const some = rows.slice(at, at + AT_ONCE)
    await tx.execute(sql`update ${entries} set "values" = new."values", live = new.live, revision = ${entries.revision} + 1
      from jsonb_to_recordset(${JSON.stringify(some)}::jsonb) as new(id text, "values" jsonb, live jsonb) where ${entries.id} = new.id`)
    await recordEntryFiles(tx, fields, 'draft', some)
    await recordEntryFiles(
      tx,
      fields,
      'live',
      some.map(({ id, live }) => ({ id, values: live })),
    )
  }
}

/**
 * Takes entries out of the bin, in the caller's transaction that holds their catalogue; one whose address another has meanwhile gets
 * another one.
 */
export async function restoreEntries(tx: Queryable, catalogueId: string, ids: string[]): Promise<void> {
  const taken = await slugsOf(tx, catalogueId)
  const rows = await tx
    .select({ id: entries.id, slug: entries.slug })
    .from(entries)
    .where(and(eq(entries.catalogueId, catalogueId), among(entries.id, ids), isNotNull(entries.deleted)))
  const slugs: string[] = []
  for (const { id, slug: wished } of rows) {
    const slug = firstFree(wished, candidate => taken.has(candidate))
    taken.add(slug)
    slugs.push(slug)
    await tx.update(entries).set({ deleted: null, slug }).where(eq(entries.id, id))
  }
  await takeAddresses(tx, catalogueId, slugs)
}

/** Addresses of entries are their own from now on: whoever was there before is not led on from them any more. */
const takeAddresses = (tx: Queryable, catalogueId: string, slugs: string[]) =>
  tx.delete(retiredEntrySlugs).where(and(eq(retiredEntrySlugs.catalogueId, catalogueId), among(retiredEntrySlugs.slug, slugs)))

/** The addresses that are taken in a catalogue. */
async function slugsOf(tx: Queryable, catalogueId: string): Promise<Set<string>> {
  // As one text: ten thousand rows would keep the thread that answers visitors.
  const [row] = await tx
    .select({ slugs: sql<string | null>`string_agg(${entries.slug}, ' ')` })
    .from(entries)
    .where(and(eq(entries.catalogueId, catalogueId), isNull(entries.deleted)))
  return new Set(row?.slugs?.split(' '))
}

export interface NewEntry {
  id: string
  values: Values
}

/**
 * Makes entries at the end of a catalogue, in the caller's transaction that holds it.
 *
 * @throws Problem 422 where there would be too many
 */
export async function insertEntries(
  tx: Queryable,
  catalogue: { id: string; one: string; fields: Field[] },
  all: Values[],
): Promise<NewEntry[]> {
  const taken = await slugsOf(tx, catalogue.id)
  if (taken.size + all.length > MOST_ENTRIES)
    throw new Problem(
      422,
      `A catalogue holds at most ${MOST_ENTRIES.toLocaleString('en')} entries.`,
      'Put some in the bin, or in a catalogue of their own.',
    )
  const [last] = await tx
    .select({ place: sql<number>`coalesce(max(${entries.place}), 0)::int` })
    .from(entries)
    .where(eq(entries.catalogueId, catalogue.id))
  // Names that differ in nothing an address shows are numbered on from where the last one was.
  const numbered = new Map<string, number>()
  let { place } = last!
  const make = (values: Values) => {
    const wished = wishedSlug(values, catalogue.one)
    const slug = firstFree(wished, candidate => taken.has(candidate), numbered.get(wished) ?? 2)
    if (slug !== wished) numbered.set(wished, Number(/-(\d+)$/.exec(slug)?.[1] ?? 1) + 1)
    taken.add(slug)
    return {
      id: newId(),
      catalogueId: catalogue.id,
      slug,
      values,
      live: null,
      published: null,
      place: ++place,
      revision: 1,
      changed: new Date(),
      deleted: null,
    }
  }
  const made: NewEntry[] = []
  for (let at = 0; at < all.length; at += MADE_AT_ONCE) {
    const rows = all.slice(at, at + MADE_AT_ONCE).map(make)
    await takeAddresses(
      tx,
      catalogue.id,
      rows.map(({ slug }) => slug),
    )
    await insertMany(tx, entries, rows)
    await recordEntryFiles(tx, catalogue.fields, 'draft', rows)
    made.push(...rows.map(({ id, values }) => ({ id, values })))
  }
  return made
}

const cellProblem = (field: Field, fault: string, extra: Record<string, unknown>) =>
  new Problem(422, `“${field.name}” cannot be so.`, fault, { field: field.id, ...extra })

/** @throws Problem 422 where a value cannot be in its field, or there is no such field */
export function mustFit(fields: Field[], values: Values, extra: Record<string, unknown> = {}): void {
  for (const [id, value] of Object.entries(values)) {
    const field = fields.find(each => each.id === id)
    if (!field) throw new Problem(422, 'A field that was written in is gone.', 'Load the table again.', { field: id, ...extra })
    const fault = faultOf(field, value)
    if (fault) throw cellProblem(field, fault, extra)
  }
}

/** @throws Problem 409 where two entries have the same in a field that allows no two, after the caller's changes */
export async function mustBeUnique(tx: Queryable, catalogue: { id: string; fields: Field[] }, ids: string[]): Promise<void> {
  for (const field of catalogue.fields.filter(({ unique }) => unique)) {
    const value = sql`${entries.values} -> ${sql.param(field.id)}::text`
    const { rows } = await tx.execute<{ id: string; held: Values[string] }>(sql`
      select changed.id as id, changed.held as held from
        (select ${entries.id} as id, ${value} as held from ${entries}
          where ${entries.catalogueId} = ${catalogue.id} and ${entries.deleted} is null and ${among(entries.id, ids)}) as changed
        join (select ${value} as held, count(*) as held_by from ${entries}
          where ${entries.catalogueId} = ${catalogue.id} and ${entries.deleted} is null and ${value} is not null
          group by 1 having count(*) > 1) as doubled on doubled.held = changed.held
      limit 1`)
    const [row] = rows
    if (row)
      throw new Problem(
        409,
        `Two entries would have “${writeCell(field, row.held)}” as ${field.name}.`,
        'That field allows no two alike. Write another.',
        {
          field: field.id,
          entry: row.id,
        },
      )
  }
}

/** @throws Problem 422 where an entry has no name */
export function mustHaveName(values: Values): void {
  if (!titleOf(values).trim()) throw new Problem(422, 'An entry needs its name.', 'Write it first.', { field: TITLE })
}

/** Rows of some entries of a catalogue that are not in the bin, held for the caller's transaction. */
export const holdEntries = (tx: Queryable, catalogueId: string, ids: string[]) =>
  tx
    .select()
    .from(entries)
    .where(and(eq(entries.catalogueId, catalogueId), among(entries.id, ids), isNull(entries.deleted)))
    .for('update')
