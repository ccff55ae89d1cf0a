import { inArray } from 'drizzle-orm'
import type { ExportFormat } from '../../../core/catalogue/entry'
import type { Field } from '../../../core/catalogue/field'
import { filesIn, writeCell } from '../../../core/catalogue/values'
import { csvLines } from '../../../core/csvLine'
import type { Database } from '../../db/connection'
import { files } from '../../db/schema'
import { catalogueItem } from './catalogueRows'
import type { EntryIndex } from './entryIndex'

const MEDIA_TYPES: Record<ExportFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  json: 'application/json; charset=utf-8',
}

/** UTF-8 that table programs know as such by its mark (common practice). */
const MARK = '\uFEFF'

/** Entries as a table for other programs; brought in again it changes nothing. */
export function createEntryExport(db: Database, index: EntryIndex) {
  async function handles(fields: Field[], all: { values: Parameters<typeof filesIn>[1] }[]): Promise<Map<string, string>> {
    const ids = [...new Set(all.flatMap(({ values }) => filesIn(fields, values)))]
    const rows = ids.length ? await db.select({ id: files.id, handle: files.handle }).from(files).where(inArray(files.id, ids)) : []
    return new Map(rows.map(({ id, handle }) => [id, handle]))
  }

  return {
    /** @returns bytes, their media type, and the name to save them under */
    async write(catalogueId: string, format: ExportFormat): Promise<{ bytes: Buffer; mediaType: string; fileName: string }> {
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
