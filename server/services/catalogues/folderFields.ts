import { setImmediate as turn } from 'node:timers/promises'
import { and, eq, isNull } from 'drizzle-orm'
import type { Catalogue } from '../../../core/catalogue/catalogue'
import { isFileKind, type Field } from '../../../core/catalogue/field'
import { looseFiles, placeFiles, type FolderFile } from '../../../core/catalogue/folderFiles'
import { entryMatcher, type EntryToMatch, type Matched, type Stray } from '../../../core/catalogue/match'
import { createQueue } from '../../../core/queue'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { editions, files } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { Events } from '../events'
import type { KeptTree } from '../files/keptTree'
import { holdCatalogue } from './catalogueRows'
import type { EntryIndex } from './entryIndex'
import { holdEntries, rewriteEntries } from './entryWriting'

/** Milliseconds in which several files that come one after another are waited for. */
const TOGETHER = 300

const boundFields = ({ fields }: Pick<Catalogue, 'fields'>): (Field & { folder: string })[] =>
  fields.filter((field): field is Field & { folder: string } => isFileKind(field.kind) && field.folder !== null)

/** Files of a field that stand for a folder's: those that come into it find their entries by themselves. */
export function createFolderFields(db: Database, index: EntryIndex, tree: KeptTree, events: Events) {
  const inTurn = createQueue()
  let waiting: NodeJS.Timeout | undefined
  let all = true
  let closed = false
  const suspects = new Set<string>()

  /** Files of a folder and those below it, under the names they came with. */
  async function filesOf(q: Queryable, folder: string): Promise<FolderFile[]> {
    const folders = (await tree.get()).below(folder).map(({ id }) => id)
    if (!folders.length) return []
    const rows = await q
      .select({ id: files.id, name: editions.fileName, created: files.created })
      .from(files)
      .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
      .where(and(among(files.folder, folders), isNull(files.deleted)))
    return rows.map(row => ({ ...row, created: row.created.getTime() }))
  }

  /** The entry each file belongs to that none holds; visitors' questions come in between. */
  async function matchLoose(catalogue: Catalogue, field: Field, of: FolderFile[], those: EntryToMatch[]): Promise<Matched[]> {
    const match = entryMatcher(those, catalogue.fields, catalogue.key)
    const matched: Matched[] = []
    for (const file of looseFiles(field, of, those)) {
      matched.push(match(file))
      await turn()
    }
    return matched
  }

  async function settleField(catalogueId: string, fieldId: string, folder: string, matched: Matched[]): Promise<void> {
    await db.transaction(async tx => {
      const { fields } = await holdCatalogue(tx, catalogueId)
      const field = fields.find(each => each.id === fieldId)
      // Bound otherwise meanwhile: that is seen to next.
      if (field?.folder !== folder) return
      const wanted = matched.flatMap(({ entry, sure }) => (entry && sure ? [entry] : []))
      const held = await holdEntries(tx, catalogueId, wanted)
      const { values } = placeFiles(field, await filesOf(tx, folder), held, matched)
      await rewriteEntries(
        tx,
        fields,
        held.flatMap(({ id, values: before, live }) => {
          const value = values.get(id)
          if (value === undefined) return []
          // Visitors have it at once, but for an entry in which something else waits in that field.
          const follows = live && JSON.stringify(live[fieldId]) === JSON.stringify(before[fieldId])
          return [{ id, values: { ...before, [fieldId]: value }, live: follows ? { ...live, [fieldId]: value } : live }]
        }),
      )
    })
  }

  async function settle(catalogue: Catalogue): Promise<void> {
    for (const field of boundFields(catalogue)) {
      const { all: those } = await index.entriesOf(catalogue.id)
      const of = await filesOf(db, field.folder)
      const matched = await matchLoose(catalogue, field, of, those)
      if (placeFiles(field, of, those, matched).values.size) await settleField(catalogue.id, field.id, field.folder, matched)
    }
  }

  /** Does what is to be done by now. */
  const run = (): Promise<void> =>
    inTurn(async () => {
      const [every, some] = [all, new Set(suspects)]
      all = false
      suspects.clear()
      try {
        for (const catalogue of await index.catalogues()) if (every || some.has(catalogue.id)) await settle(catalogue)
      } catch (error) {
        // What could not be seen to is seen to with what comes next.
        all ||= every
        some.forEach(id => suspects.add(id))
        throw error
      }
    })

  function soon() {
    if (closed) return
    waiting ??= setTimeout(() => {
      waiting = undefined
      run().catch(laterTrouble('files could not be given to their entries yet'))
    }, TOGETHER).unref()
  }
  for (const event of ['library', 'folders'] as const)
    events.on(event, () => {
      all = true
      soon()
    })
  events.on('entries', ids => {
    for (const id of ids) suspects.add(id.split('/')[0]!)
    soon()
  })
  events.on('catalogues', ids => {
    for (const id of ids) suspects.add(id)
    soon()
  })

  return {
    run,

    /** Sees to what came while no process was there; nobody waits for it. */
    start: soon,

    /** Files of the folders that fit no entry beyond doubt, by the fields they are for. */
    async strays(catalogueId: string): Promise<Stray[]> {
      const catalogue = await index.catalogue(catalogueId)
      const found: Stray[] = []
      for (const field of catalogue ? boundFields(catalogue) : []) {
        const { all: those } = await index.entriesOf(catalogueId)
        const of = await filesOf(db, field.folder)
        const { strays } = placeFiles(field, of, those, await matchLoose(catalogue!, field, of, those))
        if (strays.length) found.push({ field: field.id, files: strays.map(({ file, entry, sure }) => ({ file, entry, sure })) })
      }
      return found
    },

    /** Ends what is under way. */
    async close(): Promise<void> {
      closed = true
      clearTimeout(waiting)
      await inTurn(async () => undefined)
    },
  }
}
export type FolderFields = ReturnType<typeof createFolderFields>
