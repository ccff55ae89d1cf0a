import { eq } from 'drizzle-orm'
import type { FolderChange, FolderItem, NewFolder } from '../../../core/folders/folderItem'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import type { Database } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { folders } from '../../db/schema'
import { mustBeGate } from '../gates/gates'
import type { KeptTree } from '../files/keptTree'
import { mustHave, nameTaken, readTree } from '../files/readTree'
import type { Register } from './register'

/** The folders of the library. */
export function createFolderService(db: Database, tree: KeptTree, register: Register) {
  async function list(): Promise<FolderItem[]> {
    const [{ all }, cards] = [await tree.get(), await register.cards()]
    const counts = new Map<string | null, number>()
    for (const { folder, deleted } of cards.items()) if (!deleted) counts.set(folder, (counts.get(folder) ?? 0) + 1)
    return all.map(({ created, deleted, ...folder }) => ({
      ...folder,
      files: counts.get(folder.id) ?? 0,
      created: created.toISOString(),
      deleted: deleted?.toISOString() ?? null,
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
    /** The folders outside the bin. */
    tree: tree.get,
    /** What a folder outside the bin is called. */
    nameOf: async (id: string): Promise<string | undefined> => (await tree.get()).get(id)?.name,

    /** @throws Problem 409 where a folder of that name is there already */
    async create({ name, parent }: NewFolder): Promise<FolderItem> {
      const id = newId()
      await db.transaction(async tx => {
        const tree = await readTree(tx)
        mustHave(tree, parent)
        if (nameTaken(tree, parent, name))
          throw new Problem(409, `There is a folder "${name}" here already.`, 'Choose another name.', { field: 'name' })
        await tx.insert(folders).values({ id, parent, name })
      })
      return get(id)
    },

    /** @throws Problem 409 where another folder beside it has that name */
    async change(id: string, change: FolderChange): Promise<FolderItem> {
      await db.transaction(async tx => {
        const tree = await readTree(tx)
        const folder = mustHave(tree, id)!
        if (change.name !== undefined && nameTaken(tree, folder.parent, change.name, id)) {
          throw new Problem(409, `There is a folder "${change.name}" here already.`, 'Choose another name.', { field: 'name' })
        }
        await mustBeGate(tx, change.gate)
        if (anyGiven(change)) await tx.update(folders).set(change).where(eq(folders.id, id))
      })
      return get(id)
    },
  }
}
export type FolderService = ReturnType<typeof createFolderService>
