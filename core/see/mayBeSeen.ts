import { z } from 'zod'
import type { Tree, Node } from '../folders/folderTree'

/** What an owner says of a file or folder: yes, no, or nothing, so that what is said further up holds. */
export const saidSchema = z.boolean().nullable()
export type Said = z.infer<typeof saidSchema>

/**
 * What holds for something: what is said of it, else of the nearest folder above it of which anything is said.
 *
 * @param folder in which it lies; null at the top of the library
 * @param otherwise what holds where nothing is said on the way up
 */
export function nearestSaid<Folder extends Node>(
  own: Said,
  folder: string | null,
  tree: Pick<Tree<Folder>, 'pathTo'>,
  of: (folder: Folder) => Said,
  otherwise: boolean,
): boolean {
  if (own !== null) return own
  const said = tree.pathTo(folder).findLast(each => of(each) !== null)
  return (said && of(said)) ?? otherwise
}

/** Whether visitors may look at a file before they take it. */
export const mayBeSeen = <Folder extends Node & { see: Said }>(
  file: { see: Said; folder: string | null },
  tree: Pick<Tree<Folder>, 'pathTo'>,
  site: { see: boolean },
): boolean => nearestSaid(file.see, file.folder, tree, folder => folder.see, site.see)
