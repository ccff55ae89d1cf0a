import type { ExportFormat } from '../../../core/catalogue/entry'
import type { Field } from '../../../core/catalogue/field'
import { filesIn, writeCell } from '../../../core/catalogue/values'
import { csvLines } from '../../../core/csvLine'
import type { FileItem } from '../../../core/files/fileItem'
import { distinctPaths } from '../../../core/zip/safePaths'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { files } from '../../db/schema'
import type { LaidOut, Pack } from '../bundles/packing'
import { filesById } from '../files/items'
import { catalogueItem } from './catalogueRows'
import type { EntryIndex } from './entryIndex'

type TableFormat = Exclude<ExportFormat, 'zip'>
const MEDIA_TYPES: Record<TableFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  json: 'application/json; charset=utf-8',
}

/** UTF-8 that table programs know as such by its mark (common practice). */
const MARK = '\uFEFF'

/** Entries as a table for other programs; brought in again it changes nothing. */
export function createEntryExport(db: Database, index: EntryIndex, pack: Pack) {
  async function handles(fields: Field[], all: { values: Parameters<typeof filesIn>[1] }[]): Promise<Map<string, string>> {
    const ids = [...new Set(all.flatMap(({ values }) => filesIn(fields, values)))]
    const rows = ids.length ? await db.select({ id: files.id, handle: files.handle }).from(files).where(among(files.id, ids)) : []
    return new Map(rows.map(({ id, handle }) => [id, handle]))
  }

  return {
    /**
     * The table as CSV with the files that its cells name, as they are now: brought in elsewhere it is the same catalogue.
     *
     * @param seen those of some files that who asks may see: others are neither named nor sent
     */
    async zip(catalogueId: string, seen: (items: FileItem[]) => Promise<FileItem[]>): Promise<LaidOut> {
      const { slug, fields } = await catalogueItem(db, catalogueId)
      const { all } = await index.entriesOf(catalogueId)
      const ids = [...new Set(all.flatMap(({ values }) => filesIn(fields, values)))]
      const items = await seen((await filesById(db, ids)).filter(({ deleted }) => !deleted))
      const paths = distinctPaths(items.map(({ fileName }) => fileName))
      const named = new Map(items.map(({ id }, at) => [id, paths[at]!]))
      const rows = all.map(({ values }) => fields.map(field => writeCell(field, values[field.id], id => named.get(id) ?? '')))
      const table = { name: `${slug}.csv`, body: MARK + csvLines([fields.map(({ name }) => name), ...rows]) }
      return pack(
        items.map((item, at) => ({ item: { ...item, fileName: paths[at]! }, folder: 'files/' })),
        `${slug}.zip`,
        [table],
      )
    },

    /** @returns bytes, their media type, and the name to save them under */
    async write(catalogueId: string, format: TableFormat): Promise<{ bytes: Buffer; mediaType: string; fileName: string }> {
      const { slug, fields } = await catalogueItem(db, catalogueId)
      const { all } = await index.entriesOf(catalogueId)
      const named = await handles(fields, all)
      const nameOf = (id: string) => named.get(id) ?? ''
      const head = fields.map(({ name }) => name)
      const rows = all.map(({ values }) => fields.map(field => writeCell(field, values[field.id], nameOf)))
      const result = (bytes: Buffer) => ({ bytes, mediaType: MEDIA_TYPES[format], fileName: `${slug}.${format}` })
      if (format === 'csv') return result(Buffer.from(MARK + csvLines([head, ...rows])))
      if (format === 'json') {
        const objects = rows.map(cells => Object.fromEntries(cells.flatMap((cell, at) => (cell ? [[head[at]!, cell]] : []))))
        return result(Buffer.from(`${JSON.stringify(objects, null, 2)}\n`))
      }
      // Not at the start: most sites do without.
      const { utils, write } = await import('@e965/xlsx')
      const book = utils.book_new()
      const typed = all.map(({ values }) =>
        fields.map(field =>
          typeof values[field.id] === 'number' ? (values[field.id] as number) : writeCell(field, values[field.id], nameOf),
        ),
      )
      utils.book_append_sheet(book, utils.aoa_to_sheet([head, ...typed]), 'Entries')
      return result(write(book, { type: 'buffer', bookType: 'xlsx' }) as Buffer)
    },
  }
}
export type EntryExport = ReturnType<typeof createEntryExport>
