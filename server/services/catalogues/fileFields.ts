import { and, eq, isNull } from 'drizzle-orm'
import { fieldOf } from '../../../core/catalogue/catalogue'
import { isFileKind } from '../../../core/catalogue/field'
import { matchFiles, type Matched } from '../../../core/catalogue/match'
import { Problem } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { editions, files } from '../../db/schema'
import { catalogueItem } from './catalogueRows'
import type { EntryIndex } from './entryIndex'

/** Files find the entries they belong to. */
export function createFileFields(db: Database, index: EntryIndex) {
  return {
    /**
     * Which entry each of some files belongs to, by their names; nothing is changed.
     *
     * @throws Problem 422 where the field holds no files
     */
    async match(catalogueId: string, fieldId: string, ids: string[]): Promise<Matched[]> {
      const catalogue = await catalogueItem(db, catalogueId)
      const field = fieldOf(catalogue.fields, fieldId)
      if (!field || !isFileKind(field.kind))
        throw new Problem(422, 'That field holds no files.', 'Choose one that does, or make one.', { field: fieldId })
      const named = await db
        .select({ id: files.id, name: editions.fileName })
        .from(files)
        .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
        .where(and(among(files.id, ids), isNull(files.deleted)))
      const order = new Map(ids.map((id, at) => [id, at]))
      named.sort((a, b) => order.get(a.id)! - order.get(b.id)!)
      const { all } = await index.entriesOf(catalogueId)
      return matchFiles(named, all, catalogue.fields, catalogue.key)
    },
  }
}
export type FileFields = ReturnType<typeof createFileFields>
