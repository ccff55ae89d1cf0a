import { and, eq, isNotNull, lt, sql, type SQL } from 'drizzle-orm'
import type { DeleteFile } from '../../../core/files/fileItem'
import type { Selection } from '../../../core/files/selection'
import { freeName, Tree } from '../../../core/folders/folderTree'
import { gateOf, type Gated } from '../../../core/gate/standing'
import { groupBy } from '../../../core/group'
import { Problem } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { insertMany } from '../../db/insertMany'
import { files, folders, retiredHandles } from '../../db/schema'
import { nameTaken, readTree, type FolderRow } from '../files/readTree'
import type { Holders, TakeBack } from '../uses/holders'
import { createTakeBacks } from '../uses/takeBacks'
import { filesById, getFile } from '../files/items'
import { filesIn, topmost } from './placing'

/** What went to the bin together. */
export interface Removed {
  files: string[]
  folders: string[]
}
/** What was put in the bin; `undo` is by what places that were changed for that are as they were, once it is restored with it. */
export interface PutInBin extends Removed {
  undo?: string
}

/** Deletes files for good; their handles say so from then on. Gives how many went. */
export async function deleteForGood(tx: Queryable, which: SQL | undefined): Promise<number> {
  const rows = await tx.delete(files).where(which).returning({ handle: files.handle })
  await insertMany(
    tx,
    retiredHandles,
    rows.map(({ handle }) => ({ handle, fileId: null })),
  )
  return rows.length
}

/** Things go to the bin and come back; after thirty days they go for good. */
export function createBin(db: Database, holders: Holders) {
  const takeBacks = createTakeBacks()

  /** @returns what takes back that places were changed @throws Problem where the uses of the files that go hold them back */
  async function settleUses(
    tx: Queryable,
    going: string[],
    goneFolders: string[],
    { replaceBy, takeOff, despite }: DeleteFile,
  ): Promise<TakeBack | undefined> {
    const { uses, bundles } = await holders.places(tx, { files: going, folders: goneFolders })
    const total = uses.length + bundles.length
    if (total && !replaceBy && !takeOff && !despite) {
      const count = total === 1 ? '1 place uses' : `${total} places use`
      const what = going.length + goneFolders.length === 1 ? 'this' : 'these'
      throw new Problem(409, `${count} ${what}.`, 'Put another file in its place, take them off, or delete all the same.', {
        uses,
        bundles,
      })
    }
    if (replaceBy && going.includes(replaceBy))
      throw new Problem(422, 'A file cannot take its own place.', 'Choose another file, one that stays.')
    const other = replaceBy === undefined ? undefined : await getFile(tx, replaceBy)
    if (other?.deleted) {
      throw new Problem(422, 'That file is in the bin itself.', 'Restore it first, or choose another.')
    }
    // No file can take the place of a folder: its shelf goes when it is asked to, and is pointed out else.
    if (!total || !(other || takeOff)) return undefined
    return holders.lead(tx, { files: going, folders: takeOff ? goneFolders : [] }, other)
  }

  /** Folders that went to the bin at the same moment as one, from it downwards. */
  async function removedWith(tx: Queryable, id: string): Promise<FolderRow[]> {
    const gone = new Tree(await tx.select().from(folders).where(isNotNull(folders.deleted)))
    const moment = gone.get(id)?.deleted?.getTime()
    return gone.below(id).filter(folder => folder.deleted!.getTime() === moment)
  }

  /** The gate that something stood behind in a folder that is gone: without the folder it is its own. */
  function gatesThere(tx: Queryable) {
    // Read once, however many come back.
    let whole: Promise<Tree<FolderRow>> | undefined
    const read = async () => new Tree<FolderRow>(await tx.select().from(folders))
    return async (thing: Pick<Gated, 'gate' | 'folder'>): Promise<string | null> => thing.gate ?? gateOf(thing, await (whole ??= read()))
  }

  async function restoreFolder(tx: Queryable, id: string): Promise<{ folders: string[]; files: string[] }> {
    const family = await removedWith(tx, id)
    const [top] = family
    if (!top) return { folders: [], files: [] }
    const tree = await readTree(tx)
    // A folder whose own place is gone comes back at the top.
    const parent = top.parent !== null && tree.get(top.parent) ? top.parent : null
    const gate = parent === top.parent ? top.gate : await gatesThere(tx)({ gate: top.gate, folder: top.parent })
    const name = freeName(top.name, candidate => nameTaken(tree, parent, candidate))
    const ids = family.map(folder => folder.id)
    await tx.update(folders).set({ deleted: null }).where(among(folders.id, ids))
    await tx.update(folders).set({ parent, name, gate }).where(eq(folders.id, id))
    const back = await tx
      .update(files)
      .set({ deleted: null })
      .where(and(among(files.folder, ids), eq(files.deleted, top.deleted!)))
      .returning({ id: files.id })
    return { folders: ids, files: back.map(file => file.id) }
  }

  /** Files and folders of the bin go for good; their handles say so from then on. */
  async function forGood(whichFiles: SQL | undefined, whichFolders: SQL | undefined): Promise<number> {
    return db.transaction(async tx => {
      const count = await deleteForGood(tx, and(isNotNull(files.deleted), whichFiles))
      const old = new Tree(
        await tx
          .select()
          .from(folders)
          .where(and(isNotNull(folders.deleted), whichFolders)),
      )
      // The lowest first: a folder goes once nothing lies in it any more.
      for (const { id } of old.all.toSorted((a, b) => old.pathTo(b.id).length - old.pathTo(a.id).length)) {
        await tx
          .delete(folders)
          .where(
            and(
              eq(folders.id, id),
              sql`not exists (select 1 from ${files} where ${files.folder} = ${id})`,
              sql`not exists (select 1 from ${folders} as child where child.parent = ${id})`,
            ),
          )
      }
      return count
    })
  }

  return {
    /**
     * Puts files and folders in the bin, with all that is in the folders.
     *
     * @throws Problem 409 with the places in `uses` and `bundles` where files are in use and no way on is chosen
     */
    async remove({ files: fileIds, folders: folderIds }: Selection, way: DeleteFile = {}): Promise<PutInBin> {
      const deleted = new Date()
      const [removed, takeBack] = await db.transaction(async tx => {
        const tree = await readTree(tx)
        const below = topmost(tree, folderIds)
          .flatMap(folder => tree.below(folder.id))
          .map(folder => folder.id)
        const chosen = await filesById(tx, fileIds)
        if (chosen.length < fileIds.length)
          throw new Problem(404, 'Some of these files are gone already.', 'Look at the list again and choose anew.')
        const going = [
          ...new Set([...chosen.filter(file => !file.deleted).map(file => file.id), ...(await filesIn(tx, below)).map(file => file.id)]),
        ]
        const back = await settleUses(tx, going, below, way)
        if (going.length) await tx.update(files).set({ deleted }).where(among(files.id, going))
        if (below.length) await tx.update(folders).set({ deleted }).where(among(folders.id, below))
        return [{ files: going, folders: below }, back] as const
      })
      return { ...removed, ...(takeBack && { undo: takeBacks.keep(takeBack) }) }
    },

    /**
     * Takes files and folders out of the bin; a folder comes back with what went with it.
     *
     * @param undo what `remove` gave: places that it changed are as they were before, too
     * @throws Problem 404 where that is known no longer, 409 where such a place was changed since; nothing is restored then
     */
    async restore({ files: fileIds, folders: folderIds }: Selection, undo?: string): Promise<Removed> {
      const takeBack = undo === undefined ? undefined : takeBacks.find(undo)
      const back = await db.transaction(async tx => {
        const result: Removed = { files: [], folders: [] }
        for (const id of folderIds) {
          const { folders: these, files: inside } = await restoreFolder(tx, id)
          result.folders = result.folders.concat(these)
          result.files = result.files.concat(inside)
        }
        const tree = await readTree(tx)
        const gateThere = gatesThere(tx)
        const gone = (await filesById(tx, fileIds)).filter(({ deleted }) => deleted)
        // Those of which the same becomes together: thousands come back in few steps.
        for (const those of groupBy(gone, ({ folder, gate }) => JSON.stringify([folder, gate])).values()) {
          const { folder, gate } = those[0]!
          const place = folder !== null && tree.get(folder) ? folder : null
          const behind = place === folder ? gate : await gateThere({ gate, folder })
          const ids = those.map(({ id }) => id)
          await tx.update(files).set({ deleted: null, folder: place, gate: behind }).where(among(files.id, ids))
          result.files = result.files.concat(ids)
        }
        await takeBack?.(tx)
        return result
      })
      if (undo !== undefined) takeBacks.forget(undo)
      return back
    },

    /** Folders in the bin that went there by themselves, not with one above. */
    async folders(): Promise<{ id: string; name: string; deleted: string; files: number }[]> {
      const gone = new Tree(await db.select().from(folders).where(isNotNull(folders.deleted)))
      const counts = await db
        .select({ folder: files.folder, deleted: files.deleted, count: sql<number>`count(*)::int` })
        .from(files)
        .where(and(isNotNull(files.deleted), isNotNull(files.folder)))
        .groupBy(files.folder, files.deleted)
      const same = (a: Date | null | undefined, b: Date | null | undefined) => a?.getTime() === b?.getTime()
      return gone.all
        .filter(({ parent, deleted }) => parent === null || !same(gone.get(parent)?.deleted, deleted))
        .map(({ id, name, deleted }) => {
          const family = new Set(gone.below(id).map(folder => folder.id))
          const within = counts.filter(row => family.has(row.folder!) && same(row.deleted, deleted))
          return { id, name, deleted: deleted!.toISOString(), files: within.reduce((sum, row) => sum + row.count, 0) }
        })
    },

    /** What is in the bin since before a moment goes for good; its bytes are collected afterwards. */
    emptyOld: (before: Date): Promise<number> => forGood(lt(files.deleted, before), lt(folders.deleted, before)),

    /** Deletes for good what lies in the bin: some files, or all of it. Gives how many went. */
    empty: (fileIds: string[] | null): Promise<number> =>
      fileIds === null ? forGood(undefined, undefined) : forGood(among(files.id, fileIds), sql`false`),
  }
}
