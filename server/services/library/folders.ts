import { asc, eq, isNull } from 'drizzle-orm'
import { sameName, type FolderChange, type FolderItem, type NewFolder } from '../../../core/folders/item'
import { Tree } from '../../../core/folders/tree'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { folders } from '../../db/schema'
import type { Register } from './register'

export type FolderRow = typeof folders.$inferSelect

/** The tree of the folders that are not in the bin. */
export async function readTree(db: Queryable): Promise<Tree<FolderRow>> {
  return new Tree(await db.select().from(folders).where(isNull(folders.deleted)).orderBy(asc(folders.name)))
}

/** @throws Problem 404 where the place is neither the top nor a folder outside the bin */
export function mustHave(tree: Tree<FolderRow>, id: string | null): FolderRow | null {
  if (id === null) return null
  const folder = tree.get(id)
  if (!folder) throw notFound('folder')
  return folder
}

/** Whether a place has a folder of that name, other than `except`. */
export const nameTaken = (tree: Tree<FolderRow>, parent: string | null, name: string, except?: string): boolean =>
  tree.childrenOf(parent).some(folder => folder.id !== except && sameName(folder.name, name))

/** The folder at the end of a path below `parent`, made where it is missing. */
export async function ensurePath(tx: Queryable, parent: string | null, names: string[]): Promise<string | null> {
  const tree = await readTree(tx)
  mustHave(tree, parent)
  let at = parent
  for (const name of names) {
    const known = tree.childrenOf(at).find(folder => sameName(folder.name, name))
    if (known) {
      at = known.id
      continue
    }
    const id = newId()
    await tx.insert(folders).values({ id, parent: at, name })
    at = id
  }
  return at
}

/** The folders of the library. */
export function createFolderService(db: Database, register: Register) {
  async function list(): Promise<FolderItem[]> {
    const [{ all }, cards] = [await readTree(db), await register.cards()]
    const counts = new Map<string | null, number>()
    for (const { folder, deleted } of cards.items()) if (!deleted) counts.set(folder, (counts.get(folder) ?? 0) + 1)
    return all.map(({ created, deleted, ...folder }) => ({
      ...folder, files: counts.get(folder.id) ?? 0, created: created.toISOString(), deleted: deleted?.toISOString() ?? null,
    }))
  }

  async function get(id: string): Promise<FolderItem> {
    const folder = (await list()).find(other => other.id === id)
    if (!folder) throw notFound('folder')
    return folder
  }

  return {
    list,
    get,
    /** What a folder outside the bin is called. */
    nameOf: async (id: string): Promise<string | undefined> => (await readTree(db)).get(id)?.name,

    /** @throws Problem 409 where a folder of that name is there already */
    async create({ name, parent }: NewFolder): Promise<FolderItem> {
      const id = newId()
      await db.transaction(async (tx) => {
        const tree = await readTree(tx)
        mustHave(tree, parent)
        if (nameTaken(tree, parent, name)) throw new Problem(409, `There is a folder "${name}" here already.`, 'Choose another name.', { field: 'name' })
        await tx.insert(folders).values({ id, parent, name })
      })
      return get(id)
    },

    /** @throws Problem 409 where another folder beside it has that name */
    async change(id: string, change: FolderChange): Promise<FolderItem> {
      await db.transaction(async (tx) => {
        const tree = await readTree(tx)
        const folder = mustHave(tree, id)!
        if (change.name !== undefined && nameTaken(tree, folder.parent, change.name, id)) {
          throw new Problem(409, `There is a folder "${change.name}" here already.`, 'Choose another name.', { field: 'name' })
        }
        if (anyGiven(change)) await tx.update(folders).set(change).where(eq(folders.id, id))
      })
      return get(id)
    },
  }
}
export type FolderService = ReturnType<typeof createFolderService>
