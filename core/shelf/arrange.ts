import type { Node, Tree } from '../folders/folderTree'
import { flat, listingOf, listingOfSeveral, type Listing } from './listing'
import { FIRST_OF_MANY, type AskedSource } from './shelfSource'

interface Lying {
  id: string
  folder: string | null
}

function byFolders<File extends Lying>(source: AskedSource, tree: Tree<Node & { name: string }>, files: File[]): Listing<File> {
  if (source.kind === 'folder') return listingOf(source.id, tree, files)
  if (source.below === 'no') return flat(files)
  return source.folders.length ? listingOfSeveral(source.folders, tree, files) : listingOf(null, tree, files)
}

/**
 * What a shelf lists of the files that the library gave for its question: those that are to stand first before all others, the rest in
 * its folders.
 *
 * @param pinned that are there for visitors, in their order
 * @param total files there are, where `files` are only the first of them
 */
export function arranged<File extends Lying>(
  source: AskedSource,
  tree: Tree<Node & { name: string }>,
  { files, pinned, total }: { files: File[]; pinned: File[]; total: number },
): Listing<File> {
  const first = new Set(pinned.map(({ id }) => id))
  const rest = files.filter(({ id }) => !first.has(id))
  const more = !source.most && total > files.length
  const most = source.most ?? (more ? FIRST_OF_MANY : Infinity)
  const listing = byFolders(source, tree, rest.slice(0, Math.max(0, most - pinned.length)))
  return {
    ...listing,
    files: [...pinned, ...listing.files],
    ...(pinned.length && { pinned: pinned.length }),
    ...(more && { total }),
  }
}
