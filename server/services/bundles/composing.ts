import { and, eq, inArray, isNull, or, sql } from 'drizzle-orm'
import { foldersBrought } from '../../../core/bundle/compose'
import type { Database } from '../../db/connection'
import { blobs, editions, files } from '../../db/schema'
import type { BundleMessage, BundleTask } from '../../workers/bundle'
import { readTree } from '../files/readTree'
import { createAsker, workerScript } from '../workerHost'
import type { BundleRow } from './bundleRows'

/** What a bundle depends on: a change of any of these may change it. */
export interface Reach {
  files: Set<string>
  folders: Set<string>
}

export interface Composed extends BundleMessage {
  reach: Reach
}

/** Milliseconds a worker may take. */
const PATIENCE = 60_000

/** Puts together what is in bundles, in a worker. */
export function createComposing(db: Database) {
  const composer = createAsker<BundleTask, BundleMessage>(workerScript('bundle'), PATIENCE)

  /** The files that go out, as JSON and by identity: read by the database and the worker, thousands of rows cost visitors nothing. */
  async function readFiles(fileIds: string[], folderIds: string[]): Promise<{ json: string; ids: string[] }> {
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
          or(fileIds.length ? inArray(files.id, fileIds) : undefined, folderIds.length ? inArray(files.folder, folderIds) : undefined),
        ),
      )
    return { json: row!.json, ids: row!.ids.split(' ').filter(Boolean) }
  }

  return {
    /** @param listed how many members are told one by one */
    async compose({ entries, composed }: BundleRow, listed = 0): Promise<Composed> {
      const tree = await readTree(db)
      const explicit = entries.flatMap(entry => (entry.kind === 'file' ? [entry.file] : []))
      const folders = foldersBrought(tree, entries)
      const { json, ids } = await readFiles(explicit, folders)
      const found = await composer.ask({
        entries,
        composed: composed.getTime(),
        folders: tree.all.map(({ id, parent, name }) => ({ id, parent, name })),
        files: json,
        listed,
      })
      return { ...found, reach: { files: new Set([...explicit, ...ids]), folders: new Set(folders) } }
    },

    close: () => composer.close(),
  }
}
export type Composing = ReturnType<typeof createComposing>
