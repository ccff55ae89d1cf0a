import { and, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { Values } from '../../../core/catalogue/entry'
import { fieldsSchema, isFileKind, type Field } from '../../../core/catalogue/field'
import { titleOf } from '../../../core/catalogue/values'
import type { Use } from '../../../core/files/fileItem'
import { among } from '../../db/among'
import type { Queryable } from '../../db/connection'
import { catalogues, entries, entryFiles } from '../../db/schema'
import type { Holder, TakeBack } from '../uses/holders'
import { rewriteEntries } from './entryWriting'

/** Values with one file in the place of others; without them where there is none. */
function withFile(fields: Field[], values: Values, from: ReadonlySet<string>, to: string | undefined): Values {
  const changed = { ...values }
  for (const { id, kind } of fields) {
    const value = values[id]
    if (!isFileKind(kind) || value === undefined) continue
    if (Array.isArray(value)) {
      const kept = [...new Set(value.flatMap(file => (from.has(file) ? (to ?? []) : file)))]
      if (kept.length) changed[id] = kept
      else delete changed[id]
    } else if (from.has(value as string)) {
      if (to) changed[id] = to
      else delete changed[id]
    }
  }
  return changed
}

/** Entries that hold some files, held for the caller's transaction, with the fields of their catalogues. */
async function holding(q: Queryable, files: string[]) {
  const held = q.selectDistinct({ id: entryFiles.entryId }).from(entryFiles).where(among(entryFiles.fileId, files))
  return q
    .select({ id: entries.id, values: entries.values, live: entries.live, catalogueId: entries.catalogueId, fields: catalogues.fields })
    .from(entries)
    .innerJoin(catalogues, eq(catalogues.id, entries.catalogueId))
    .where(inArray(entries.id, held))
    .for('update', { of: entries })
}

/** Catalogues that take the files of a field from one of some folders, or their tables from one of some files. */
const leaning = (files: string[], folders: string[]) => sql`${among(sql`${catalogues.source} ->> 'file'`, files)}
  or exists (
    select 1 from jsonb_array_elements(${catalogues.fields}) as field where ${among(sql`field ->> 'folder'`, folders)}
  )`

/** What catalogues lean on as wholes: the folder whose files a field takes, and the file that tables come from. */
async function wholeUses(q: Queryable, files: string[], folders: string[]): Promise<Use[]> {
  const rows = await q
    .select({ id: catalogues.id, name: catalogues.name, fields: catalogues.fields, source: catalogues.source })
    .from(catalogues)
    .where(leaning(files, folders))
  return rows.flatMap(({ id, name, fields, source }) => {
    const use = { pageId: null, pageTitle: name, kind: 'entry' as const, label: name, by: null, draft: true, live: false }
    const bound = fieldsSchema.parse(fields).filter(({ folder }) => folder !== null && folders.includes(folder))
    return [
      ...bound.map(field => ({ ...use, placement: `entry-${id}--${field.id}`, fileId: null, folderId: field.folder, section: field.name })),
      ...(source && files.includes(source.file)
        ? [{ ...use, placement: `entry-${id}--table`, fileId: source.file, folderId: null, section: 'Its table' }]
        : []),
    ]
  })
}

/** Lets go of folders and files that catalogues lean on as wholes; another file takes the place of a table. */
async function leadWholes(tx: Queryable, files: string[], folders: string[], to: string | undefined): Promise<TakeBack> {
  const rows = await tx.select().from(catalogues).where(leaning(files, folders)).for('update')
  const led = rows.filter(({ source }) => source && files.includes(source.file))
  const isGone = ({ folder }: Field) => folder !== null && folders.includes(folder)
  const unbound: { id: string; fields: Field[] }[] = []
  for (const { id, fields, source, revision } of rows) {
    const parsed = fieldsSchema.parse(fields)
    if (source && files.includes(source.file))
      await tx
        .update(catalogues)
        .set({ source: to ? { ...source, file: to, edition: 0 } : null })
        .where(eq(catalogues.id, id))
    if (!parsed.some(isGone)) continue
    unbound.push({ id, fields: parsed.filter(isGone) })
    await tx
      .update(catalogues)
      .set({ fields: parsed.map(field => (isGone(field) ? { ...field, folder: null } : field)), revision: revision + 1 })
      .where(eq(catalogues.id, id))
  }
  return async later => {
    for (const { id, source } of led)
      await later
        .update(catalogues)
        .set({ source })
        .where(and(eq(catalogues.id, id), to ? sql`${catalogues.source} ->> 'file' = ${to}` : isNull(catalogues.source)))
    for (const { id, fields: were } of unbound) {
      const [now] = await later.select().from(catalogues).where(eq(catalogues.id, id)).for('update')
      if (!now) continue
      const folderOf = new Map(were.map(field => [field.id, field.folder]))
      const fields = now.fields.map(field => ({ ...field, folder: field.folder ?? folderOf.get(field.id) ?? null }))
      await later
        .update(catalogues)
        .set({ fields, revision: now.revision + 1 })
        .where(eq(catalogues.id, id))
    }
  }
}

/** Fields of entries that hold files. */
export const entryHolder: Holder = {
  async places(q, { files, folders }) {
    const takenFrom = await wholeUses(q, files, folders)
    if (!files.length) return { uses: takenFrom }
    const rows = await q
      .select({
        fileId: entryFiles.fileId,
        field: entryFiles.field,
        side: entryFiles.side,
        entry: entries.id,
        values: entries.values,
        catalogue: catalogues.id,
        name: catalogues.name,
        fields: catalogues.fields,
      })
      .from(entryFiles)
      .innerJoin(entries, and(eq(entries.id, entryFiles.entryId), isNull(entries.deleted)))
      .innerJoin(catalogues, eq(catalogues.id, entries.catalogueId))
      .where(among(entryFiles.fileId, files))
      .orderBy(sql`${catalogues.created}`, entries.place)
    const merged = new Map<string, Use>()
    for (const { fileId, field, side, entry, values, catalogue, name, fields } of rows) {
      const placement = `entry-${catalogue}-${entry}-${field}`
      const known = merged.get(`${placement} ${fileId}`)
      merged.set(`${placement} ${fileId}`, {
        fileId,
        folderId: null,
        pageId: null,
        pageTitle: name,
        placement,
        kind: 'entry',
        label: titleOf(values),
        section: fields.find(({ id }) => id === field)?.name ?? '',
        by: null,
        draft: side === 'draft' || !!known?.draft,
        live: side === 'live' || !!known?.live,
      })
    }
    return { uses: [...merged.values(), ...takenFrom] }
  },

  async lead(tx, { files, folders }, instead) {
    const tablesBack = await leadWholes(tx, files, folders, instead?.id)
    const before = files.length ? await holding(tx, files) : []
    const [from, to] = [new Set(files), instead?.id]
    const after = before.map(row => {
      const fields = fieldsSchema.parse(row.fields)
      return { ...row, fields, values: withFile(fields, row.values, from, to), live: row.live && withFile(fields, row.live, from, to) }
    })
    for (const { id, values, live, fields } of after) await rewriteEntries(tx, fields, [{ id, values, live }])
    return async later => {
      await tablesBack(later)
      for (const { id, values, live, fields } of before) {
        // What was written since stays: only fields that the change left in place are led back.
        const [now] = await later
          .select({ values: entries.values, live: entries.live })
          .from(entries)
          .where(eq(entries.id, id))
          .for('update')
        const then = after.find(row => row.id === id)!
        if (!now) continue
        const back = (current: Values, was: Values, made: Values): Values => {
          const led = { ...current }
          for (const { id: field } of fieldsSchema.parse(fields))
            if (JSON.stringify(current[field]) === JSON.stringify(made[field])) {
              if (was[field] === undefined) delete led[field]
              else led[field] = was[field]
            }
          return led
        }
        const drafted = back(now.values, values, then.values)
        const shown = now.live && live && then.live ? back(now.live, live, then.live) : now.live
        await rewriteEntries(later, then.fields, [{ id, values: drafted, live: shown }])
      }
    }
  },
}

/** Files that entries which visitors see hold, without pictures that adorn them. */
export async function liveEntryFiles(q: Queryable): Promise<string[]> {
  const rows = await q
    .selectDistinct({ fileId: entryFiles.fileId, field: entryFiles.field, fields: catalogues.fields })
    .from(entryFiles)
    .innerJoin(entries, and(eq(entries.id, entryFiles.entryId), isNull(entries.deleted)))
    .innerJoin(catalogues, eq(catalogues.id, entries.catalogueId))
    .where(eq(entryFiles.side, 'live'))
  return rows.flatMap(({ fileId, field, fields }) => {
    const kind = fields.find(({ id }) => id === field)?.kind
    return kind === 'file' || kind === 'files' ? [fileId] : []
  })
}
