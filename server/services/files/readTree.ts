import { asc, isNull } from 'drizzle-orm'
import { sameName } from '../../../core/folders/folderItem'
import { Tree } from '../../../core/folders/folderTree'
import { newId } from '../../../core/id'
import { notFound } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { folders } from '../../db/schema'

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
