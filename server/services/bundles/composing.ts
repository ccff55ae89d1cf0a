import { and, asc, eq, isNull, not, or, sql, type SQL } from 'drizzle-orm'
import { foldersBrought, type BundledField } from '../../../core/bundle/compose'
import { CLOSED_GATE } from '../../../core/gate/gate'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { blobs, catalogues, editions, entries as catalogueEntries, entryFiles, files } from '../../db/schema'
import type { BundleMessage, BundleTask } from '../../workers/bundle'
import { readTree } from '../files/readTree'
import type { KeptStanding } from '../gates/standing'
import { createAsker, workerScript } from '../workerHost'
import type { BundleRow } from './bundleRows'

/** What a bundle depends on: a change of any of these may change it. */
export interface Reach {
  files: Set<string>
  folders: Set<string>
  /** catalogues whose entries it has files of */
  catalogues: Set<string>
}

export interface Composed extends BundleMessage {
  reach: Reach
  /** identities of the files that go out with it */
  fileIds: string[]
  /** gates that its contents stand behind and it does not stand behind itself */
  gates: string[]
  /** files of it that do */
  behind: number
  /** files of it that nobody gets */
  closed: number
}

/** Milliseconds a worker may take. */
const PATIENCE = 60_000

const chosen = (fileIds: string[], folderIds: string[]): SQL | undefined =>
  or(fileIds.length ? among(files.id, fileIds) : undefined, folderIds.length ? among(files.folder, folderIds) : undefined)

/** Puts together what is in bundles, in a worker. */
export function createComposing(db: Database, standing: Pick<KeptStanding, 'get'>) {
  const composer = createAsker<BundleTask, BundleMessage>(workerScript('bundle'), PATIENCE)

  /** The files that go out, as JSON and by identity: read by the database and the worker, thousands of rows cost visitors nothing. */
  async function readFiles(fileIds: string[], folderIds: string[], without: string[]): Promise<{ json: string; ids: string[] }> {
    if (!fileIds.length && !folderIds.length) return { json: '[]', ids: [] }
    const [row] = await db
      .select({
        json: sql<string>`coalesce(json_agg(json_build_object('id', ${files.id}, 'folder', ${files.folder}, 'fileName', ${editions.fileName}, 'sha256', ${blobs.sha256},
        'size', ${blobs.size}, 'crc32', ${blobs.crc32}, 'created', floor(extract(epoch from ${editions.created}) * 1000))), '[]')::text`,
        ids: sql<string>`coalesce(string_agg(${files.id}, ' '), '')`,
      })
      .from(files)
      .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .where(
        and(
          isNull(files.deleted),
          eq(editions.withdrawn, false),
          chosen(fileIds, folderIds),
          without.length ? not(among(files.id, without)) : undefined,
        ),
      )
    return { json: row!.json, ids: row!.ids.split(' ').filter(Boolean) }
  }

  /** The files among some that stand behind gates the bundle itself does not stand behind; those `never` go into no zip. */
  async function behindGates(bundle: string, fileIds: string[], folderIds: string[]) {
    const { of } = await standing.get()
    if (!(fileIds.length || folderIds.length)) return { ids: [], gates: [], never: [] as string[] }
    const said = { gate: files.gate, folder: files.folder }
    const [own] = await db.select(said).from(files).where(eq(files.id, bundle))
    const ownGates = own ? of(own) : []
    // Those of which the same is said together: a row for each of thousands keeps visitors waiting.
    const rows = await db
      .select({ ...said, ids: sql<string>`string_agg(${files.id}, ' ')` })
      .from(files)
      .where(and(isNull(files.deleted), chosen(fileIds, folderIds)))
      .groupBy(files.gate, files.folder)
    const others = rows.flatMap(row => {
      const gates = of(row).filter(gate => !ownGates.includes(gate))
      return gates.length ? row.ids.split(' ').map(id => ({ id, gates })) : []
    })
    // What is for the desk alone is in no zip: else the whole would go with what came in by itself.
    const never = others.filter(row => row.gates.includes(CLOSED_GATE)).map(({ id }) => id)
    const asked = others.filter(row => !row.gates.includes(CLOSED_GATE))
    return { ids: asked.map(({ id }) => id), gates: [...new Set(asked.flatMap(row => row.gates))].sort(), never }
  }

  /** What entries that visitors see hold in fields, in their order. */
  async function readFields(entries: BundleRow['entries']): Promise<BundledField[]> {
    const found: BundledField[] = []
    for (const entry of entries) {
      if (entry.kind !== 'field') continue
      const [catalogue] = await db.select({ fields: catalogues.fields }).from(catalogues).where(eq(catalogues.id, entry.catalogue))
      const named = catalogue?.fields.find(({ id }) => id === entry.field)
      if (!named) continue
      const rows = await db
        .select({ file: entryFiles.fileId })
        .from(entryFiles)
        .innerJoin(catalogueEntries, and(eq(catalogueEntries.id, entryFiles.entryId), isNull(catalogueEntries.deleted)))
        .where(and(eq(catalogueEntries.catalogueId, entry.catalogue), eq(entryFiles.field, entry.field), eq(entryFiles.side, 'live')))
        .orderBy(asc(catalogueEntries.place), asc(entryFiles.fileId))
      const files = [...new Set(rows.map(({ file }) => file))]
      found.push({ catalogue: entry.catalogue, field: entry.field, name: named.name, files })
    }
    return found
  }

  return {
    /** @param listed how many members are told one by one */
    async compose({ fileId, entries, composed, gated }: BundleRow, listed = 0): Promise<Composed> {
      const tree = await readTree(db)
      const fields = await readFields(entries)
      const explicit = [
        ...entries.flatMap(entry => (entry.kind === 'file' ? [entry.file] : [])),
        ...fields.flatMap(({ files: held }) => held),
      ]
      const folders = foldersBrought(tree, entries)
      const behind = await behindGates(fileId, explicit, folders)
      const without = [...behind.never, ...(gated === 'without' ? behind.ids : [])]
      const { json, ids } = await readFiles(explicit, folders, without)
      const found = await composer.ask({
        entries,
        composed: composed.getTime(),
        fields,
        folders: tree.all.map(({ id, parent, name }) => ({ id, parent, name })),
        files: json,
        listed,
      })
      return {
        ...found,
        reach: {
          files: new Set([...explicit, ...ids, ...without]),
          folders: new Set(folders),
          catalogues: new Set(entries.flatMap(entry => (entry.kind === 'field' ? [entry.catalogue] : []))),
        },
        fileIds: ids,
        gates: gated === 'without' ? [] : behind.gates,
        behind: behind.ids.length,
        closed: behind.never.length,
      }
    },

    close: () => composer.close(),
  }
}
export type Composing = ReturnType<typeof createComposing>
