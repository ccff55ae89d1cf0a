import { eq } from 'drizzle-orm'
import {
  broughtBy,
  type BundleChange,
  type BundleDetails,
  type BundleEntry,
  type BundleGated,
  type NewBundle,
} from '../../../core/bundle/bundleEntry'
import type { FileItem } from '../../../core/files/fileItem'
import { cleanFileName } from '../../../core/files/fileName'
import type { Selection } from '../../../core/files/selection'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { bundles, files } from '../../db/schema'
import type { Events } from '../events'
import { freeHandle } from '../files/handles'
import { filesById, getFile } from '../files/items'
import { nextPosition } from '../files/position'
import type { KeptStanding } from '../gates/standing'
import { mustHave, readTree } from '../files/readTree'
import { rowOf } from './bundleRows'
import { createComposing } from './composing'
import { createFreshness } from './freshness'

/** Members told to the desk; more would only be scrolled past. */
const MOST_LISTED = 2000

/** @throws Problem 422 where one of the files is a bundle itself */
async function entriesFor(tx: Queryable, { files: fileIds, folders: folderIds }: Selection): Promise<BundleEntry[]> {
  const [items, tree] = [await filesById(tx, fileIds), await readTree(tx)]
  const inner = items.find(item => item.bundle)
  if (inner) throw new Problem(422, `“${inner.title}” is a bundle itself.`, 'Put the files that are in it into this bundle instead.')
  folderIds.forEach(id => mustHave(tree, id))
  const there = new Map(items.map(item => [item.id, item]))
  return [
    ...fileIds
      .filter(id => there.get(id)?.deleted === null)
      .map((file): BundleEntry => ({ id: newId(), kind: 'file', file, within: '', name: null })),
    ...folderIds.map((folder): BundleEntry => ({ id: newId(), kind: 'folder', folder, within: '', name: null })),
  ]
}

/** Zips composed of files and folders of the library, put together as they are sent; kept true to what is in them. */
export function createBundles(db: Database, events: Events, standing: Pick<KeptStanding, 'get'>) {
  const composing = createComposing(db, standing)
  const { laidOut, freshen, holding } = createFreshness(db, events, composing)

  async function details(id: string): Promise<BundleDetails> {
    await freshen()
    const row = await rowOf(db, id)
    if (!row) throw notFound('bundle')
    const { now, members, total, behind, closed } = await composing.compose(row, MOST_LISTED)
    return {
      file: await getFile(db, id),
      revision: row.revision,
      gated: row.gated,
      behind,
      closed,
      entries: row.entries,
      now,
      members,
      total,
    }
  }

  async function write(
    id: string,
    revision: number | undefined,
    make: (entries: BundleEntry[], tx: Queryable) => Promise<BundleEntry[]>,
    gated?: BundleGated,
  ): Promise<BundleDetails> {
    await db.transaction(async tx => {
      const row = await rowOf(tx, id)
      if (!row) throw notFound('bundle')
      if (revision !== undefined && revision !== row.revision) {
        throw new Problem(409, 'The bundle was changed in another window.', 'Look at it as it is now, then change it again.')
      }
      const entries = await make(row.entries, tx)
      if (new Set(entries.map(entry => entry.id)).size < entries.length)
        throw new Problem(422, 'Two entries have the same identity.', 'Load the bundle again, then change it.')
      await tx
        .update(bundles)
        .set({ entries, revision: row.revision + 1, composed: new Date(), gated: gated ?? row.gated })
        .where(eq(bundles.fileId, id))
      await tx.update(files).set({ changed: new Date() }).where(eq(files.id, id))
    })
    return details(id)
  }

  return {
    laidOut,
    details,

    /** Makes a bundle of a selection, in a folder of the library. */
    async create({ title, folder, files: fileIds, folders: folderIds }: NewBundle): Promise<FileItem> {
      const id = newId()
      await db.transaction(async tx => {
        const tree = await readTree(tx)
        mustHave(tree, folder)
        const fileName = cleanFileName(`${title}.zip`)
        await tx
          .insert(files)
          .values({ id, title, handle: await freeHandle(tx, fileName), edition: 1, folder, position: await nextPosition(tx, folder) })
        await tx.insert(bundles).values({
          fileId: id,
          fileName,
          entries: await entriesFor(tx, { files: fileIds, folders: folderIds }),
          size: 0,
          count: 0,
          fingerprint: '',
        })
      })
      await freshen()
      return getFile(db, id)
    },

    /** Composes it anew. */
    change: (id: string, { entries, revision, gated }: BundleChange): Promise<BundleDetails> =>
      write(id, revision, async () => entries, gated),

    /** Puts files and folders in behind what is there; what is in it already stays once. */
    add: (id: string, selection: Selection): Promise<BundleDetails> =>
      write(id, undefined, async (entries, tx) => {
        const there = new Set(entries.map(broughtBy))
        const more = (await entriesFor(tx, selection)).filter(entry => !there.has(broughtBy(entry)))
        return [...entries, ...more]
      }),

    /** The bundles a file is in, by itself or with a folder. */
    async holding(fileId: string): Promise<FileItem[]> {
      await freshen()
      return (await filesById(db, holding(fileId))).filter(file => !file.deleted)
    },

    /** Waits until every change so far is taken in. */
    settled: freshen,

    async close(): Promise<void> {
      await freshen()
      await composing.close()
    },
  }
}
export type Bundles = ReturnType<typeof createBundles>
