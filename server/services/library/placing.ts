import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import { cut } from '../../../core/cut'
import type { FileItem } from '../../../core/files/fileItem'
import type { Move, Moved, Selection } from '../../../core/files/selection'
import { freeName, type Tree } from '../../../core/folders/folderTree'
import { newId } from '../../../core/id'
import { Problem } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { insertMany } from '../../db/insertMany'
import { bundles, editions, files, folders } from '../../db/schema'
import { mustHave, nameTaken, readTree, type FolderRow } from '../files/readTree'
import { createHandleGiver } from '../files/handles'
import { nextPosition } from '../files/position'
import { filesById } from '../files/items'

/** Files outside the bin that lie in some folders. */
export const filesIn = (tx: Queryable, folderIds: string[]) =>
  folderIds.length
    ? tx
        .select({ id: files.id, folder: files.folder })
        .from(files)
        .where(and(among(files.folder, folderIds), isNull(files.deleted)))
    : Promise.resolve([])

/** Of chosen folders, those that do not lie in another chosen one: what is in them goes with them. */
export function topmost(tree: Tree<FolderRow>, ids: string[]): FolderRow[] {
  const chosen = new Set(ids)
  return ids.map(id => mustHave(tree, id)!).filter(({ parent }) => !tree.pathTo(parent).some(above => chosen.has(above.id)))
}

async function copyBundle(tx: Queryable, from: string, fileId: string): Promise<void> {
  const [row] = await tx.select().from(bundles).where(eq(bundles.fileId, from))
  await tx.insert(bundles).values({ ...row!, fileId, revision: 1 })
}

/** Where things lie: moving and copying files and folders, and a folder's own order. */
export function createPlacing(db: Database) {
  /** In a folder's own order: puts files in front of another, or at the end. */
  async function arrange(tx: Queryable, folder: string | null, moved: string[], before?: string): Promise<string[]> {
    const rows = await tx
      .select({ id: files.id, position: files.position })
      .from(files)
      .where(and(folder === null ? isNull(files.folder) : eq(files.folder, folder), isNull(files.deleted)))
      .orderBy(asc(files.position), asc(files.id))
    const old = rows.map(row => row.id)
    const going = new Set(moved)
    const others = old.filter(id => !going.has(id))
    const at = before === undefined ? others.length : others.indexOf(before)
    await writeOrder(tx, rows, at < 0 ? [...others, ...moved] : [...others.slice(0, at), ...moved, ...others.slice(at)])
    return old
  }

  async function writeOrder(tx: Queryable, rows: { id: string; position: number }[], order: string[]): Promise<void> {
    const positions = new Map(rows.map(row => [row.id, row.position]))
    const changed = order.flatMap((id, position) => (positions.has(id) && positions.get(id) !== position ? [{ id, position }] : []))
    if (changed.length)
      await tx.execute(sql`update ${files} set position = new.position
        from jsonb_to_recordset(${JSON.stringify(changed)}::jsonb) as new(id text, position int) where ${files.id} = new.id`)
  }

  function groupsOf(chosen: { files: FileItem[]; folders: FolderRow[] }): Moved['groups'] {
    const groups = new Map<string | null, Moved['groups'][number]>()
    const group = (to: string | null) => groups.get(to) ?? groups.set(to, { to, files: [], folders: [] }).get(to)!
    for (const { id, folder } of chosen.files) group(folder).files.push(id)
    for (const { id, parent } of chosen.folders) group(parent).folders.push(id)
    return [...groups.values()]
  }

  return {
    /**
     * Moves a selection into a folder, or to the top of the library.
     *
     * @throws Problem 409 where a folder would come to lie in itself, 404 where something is gone
     */
    async move({ files: fileIds, folders: folderIds, to, before }: Move): Promise<Moved> {
      return db.transaction(async tx => {
        const tree = await readTree(tx)
        const target = mustHave(tree, to)
        const chosen = { files: (await filesById(tx, fileIds)).filter(file => !file.deleted), folders: topmost(tree, folderIds) }
        if (chosen.files.length < fileIds.length)
          throw new Problem(404, 'Some of these files are no longer in the library.', 'Look at the list again and choose anew.')
        const renamed: Moved['renamed'] = []
        for (const { id, name, parent } of chosen.folders) {
          if (tree.wouldLoop(id, to)) throw new Problem(409, `"${name}" cannot lie in itself.`, 'Choose a folder outside it.')
          if (parent === to) continue
          const siblings = await readTree(tx)
          const free = freeName(name, candidate => nameTaken(siblings, to, candidate, id))
          if (free !== name) renamed.push({ from: name, to: free })
          await tx.update(folders).set({ parent: to, name: free }).where(eq(folders.id, id))
        }
        const travelling = chosen.files.filter(file => file.folder !== to).map(file => file.id)
        if (travelling.length)
          await tx
            .update(files)
            .set({ folder: to, position: await nextPosition(tx, to) })
            .where(among(files.id, travelling))
        const order = target?.ownOrder && fileIds.length ? await arrange(tx, to, fileIds, before) : null
        return { groups: groupsOf(chosen), renamed, order }
      })
    },

    /** Puts a folder's files in an order; those not named stay behind them. */
    async order(folder: string, order: string[]): Promise<void> {
      await db.transaction(async tx => {
        mustHave(await readTree(tx), folder)
        const rows = await tx.select({ id: files.id, position: files.position }).from(files).where(eq(files.folder, folder))
        await writeOrder(tx, rows, order)
      })
    },

    /** Copies a selection into a folder: new files with handles of their own, sharing the bytes. */
    async copy({ files: fileIds, folders: folderIds }: Selection, to: string | null): Promise<{ files: string[]; folders: string[] }> {
      return db.transaction(async tx => {
        const made = { files: [] as string[], folders: [] as string[] }
        const tree = await readTree(tx)
        mustHave(tree, to)
        const giveHandle = createHandleGiver(tx)
        const created = new Date()
        const copies = {
          files: [] as Required<typeof files.$inferInsert>[],
          editions: [] as Required<typeof editions.$inferInsert>[],
          bundles: [] as [from: string, to: string][],
        }
        const copyFile = async (file: FileItem, folder: string | null) => {
          const id = newId()
          const { title, description, tags, picture, see, gate, position, fileName, mediaType, sha256, withdrawn } = file
          copies.files.push({
            id,
            title: folder === file.folder ? `${cut(title, 190)}, copy` : title,
            handle: await giveHandle(fileName),
            edition: 1,
            created,
            changed: created,
            folder,
            position,
            description,
            tags,
            picture,
            see,
            gate,
            deleted: null,
          })
          const own = { note: '', pinned: false, by: '', uploadId: null }
          if (file.bundle) copies.bundles.push([file.id, id])
          else copies.editions.push({ ...own, fileId: id, number: 1, sha256, fileName, mediaType, withdrawn, created })
          made.files.push(id)
        }
        for (const file of await filesById(tx, fileIds)) if (!file.deleted) await copyFile(file, to)
        const inside = await filesIn(
          tx,
          topmost(tree, folderIds).flatMap(({ id }) => tree.below(id).map(folder => folder.id)),
        )
        const items = await filesById(
          tx,
          inside.map(file => file.id),
        )
        for (const top of topmost(tree, folderIds)) {
          const copied = new Map<string, string>()
          // Only the uppermost comes to lie among others: what is in it has names of its own already.
          const siblings = await readTree(tx)
          const free = freeName(top.name, candidate => nameTaken(siblings, to, candidate))
          for (const { id: oldId, parent, name, mark, description, ownOrder, see, found, gate } of tree.below(top.id)) {
            const id = newId()
            const into = oldId === top.id ? to : copied.get(parent!)!
            await tx.insert(folders).values({
              id,
              parent: into,
              name: oldId === top.id ? free : name,
              mark,
              description,
              ownOrder,
              see,
              found,
              gate,
            })
            copied.set(oldId, id)
            made.folders.push(id)
          }
          for (const file of items) if (copied.has(file.folder!)) await copyFile(file, copied.get(file.folder!)!)
        }
        await insertMany(tx, files, copies.files)
        await insertMany(tx, editions, copies.editions)
        for (const [from, to] of copies.bundles) await copyBundle(tx, from, to)
        return made
      })
    },
  }
}
