import { and, desc, eq, lt } from 'drizzle-orm'
import type { BinnedField, HeldValue, Value, Values } from '../../../core/catalogue/entry'
import { fieldSchema, fieldsSchema, isFileKind, type Field } from '../../../core/catalogue/field'
import { freeName } from '../../../core/folders/folderTree'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { binnedFields, catalogues, entries, files } from '../../db/schema'
import { holdCatalogue } from './catalogueRows'
import { rewriteEntries } from './entryWriting'

interface Row {
  id: string
  values: Values
  live: Values | null
}

/** Keeps fields that are taken out of a catalogue with what entries have in them, in the caller's transaction that takes them out. */
export async function keepFields(tx: Queryable, catalogueId: string, before: Field[], after: Field[], rows: Row[]): Promise<void> {
  for (const [place, field] of before.entries()) {
    if (after.some(({ id }) => id === field.id)) continue
    const held: Record<string, HeldValue> = {}
    for (const { id, values, live } of rows) {
      const [draft, shown] = [values[field.id], live?.[field.id]]
      if (draft !== undefined || shown !== undefined) held[id] = { draft, live: shown }
    }
    await tx.insert(binnedFields).values({ id: newId(), catalogueId, field, place, held })
  }
}

/** A value without files that are gone by now; undefined where nothing is left. */
function withoutGone(field: Field, value: Value | undefined, there: ReadonlySet<string>): Value | undefined {
  if (value === undefined || !isFileKind(field.kind)) return value
  if (!Array.isArray(value)) return there.has(value as string) ? value : undefined
  const kept = value.filter(id => there.has(id))
  return kept.length ? kept : undefined
}

/** Files among values that are there still. */
async function filesThere(tx: Queryable, field: Field, held: HeldValue[]): Promise<Set<string>> {
  if (!isFileKind(field.kind)) return new Set()
  const ids = [...new Set(held.flatMap(({ draft, live }) => [draft ?? [], live ?? []].flat() as string[]))]
  const rows = ids.length ? await tx.select({ id: files.id }).from(files).where(among(files.id, ids)) : []
  return new Set(rows.map(({ id }) => id))
}

/** Fields in the bin. */
export function createFieldBin(db: Database) {
  return {
    /** Fields that were taken out of a catalogue, the last first. */
    async binned(catalogueId: string): Promise<BinnedField[]> {
      const rows = await db
        .select()
        .from(binnedFields)
        .where(eq(binnedFields.catalogueId, catalogueId))
        .orderBy(desc(binnedFields.deleted), desc(binnedFields.id))
      return rows.map(({ id, field, held, deleted }) => ({
        id,
        name: field.name,
        entries: Object.keys(held).length,
        deleted: deleted.toISOString(),
      }))
    },

    /**
     * Puts a field back where it was, with what entries had in it; under another name where another field has its own meanwhile.
     *
     * @throws Problem 404, 422 where there are too many fields
     */
    async restore(catalogueId: string, id: string): Promise<void> {
      await db.transaction(async tx => {
        const { fields, revision } = await holdCatalogue(tx, catalogueId)
        const [kept] = await tx
          .delete(binnedFields)
          .where(and(eq(binnedFields.id, id), eq(binnedFields.catalogueId, catalogueId)))
          .returning()
        if (!kept) throw notFound('field')
        const field = fieldSchema.parse(kept.field)
        const taken = new Set(fields.map(each => each.name.toLowerCase()))
        const name = freeName(field.name, candidate => taken.has(candidate.toLowerCase()))
        const checked = fieldsSchema.safeParse(fields.toSpliced(Math.max(1, kept.place), 0, { ...field, name }))
        if (!checked.success) throw new Problem(422, 'The field does not fit in.', checked.error.issues[0]!.message)
        await tx
          .update(catalogues)
          .set({ fields: checked.data, revision: revision + 1 })
          .where(eq(catalogues.id, catalogueId))
        const ids = Object.keys(kept.held)
        if (!ids.length) return
        const there = await filesThere(tx, field, Object.values(kept.held))
        const rows = await tx
          .select({ id: entries.id, values: entries.values, live: entries.live })
          .from(entries)
          .where(and(eq(entries.catalogueId, catalogueId), among(entries.id, ids)))
          .for('update')
        const put = (values: Values, value: Value | undefined): Values => (value === undefined ? values : { ...values, [field.id]: value })
        await rewriteEntries(
          tx,
          checked.data,
          rows.map(row => {
            const { draft, live } = kept.held[row.id]!
            return {
              id: row.id,
              values: put(row.values, withoutGone(field, draft, there)),
              live: row.live && put(row.live, withoutGone(field, live, there)),
            }
          }),
        )
      })
    },

    /** Forgets fields that were put in the bin before a moment. */
    async clean(before: Date): Promise<void> {
      await db.delete(binnedFields).where(lt(binnedFields.deleted, before))
    },
  }
}
export type FieldBin = ReturnType<typeof createFieldBin>
