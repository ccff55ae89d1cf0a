import type { Node, Tree } from '../folders/folderTree'
import { groupBy } from '../group'

/** What a shelf lists: files, and folders with what they list in turn. */
export interface Listing<File> {
  files: File[]
  folders: (Listing<File> & { name: string })[]
  /** files there are in all, where they are more than stand here */
  total?: number
}

/** Files without a folder between them. */
export const flat = <File>(files: File[]): Listing<File> => ({ files, folders: [] })

/** All files of a listing, each in its order. */
export const filesListed = <File>({ files, folders }: Listing<File>): File[] => [...files, ...folders.flatMap(filesListed)]

/** A listing with its files made into something else. */
export const mapListing = <File, Other>({ files, folders, total }: Listing<File>, make: (file: File) => Other): Listing<Other> => ({
  ...(total !== undefined && { total }),
  files: files.map(file => make(file)),
  folders: folders.map(folder => ({ name: folder.name, ...mapListing(folder, make) })),
})

/** Files by the folders below one in which they lie, in the order they come in; folders without a file in or below them are left out. */
export function listingOf<File extends { folder: string | null }>(
  top: string,
  tree: Tree<Node & { name: string }>,
  files: File[],
): Listing<File> {
  const inside = groupBy(files, ({ folder }) => folder)
  const met = new Set<string>()
  function list(id: string): Listing<File> {
    met.add(id)
    return {
      files: inside.get(id) ?? [],
      folders: tree
        .childrenOf(id)
        .filter(child => !met.has(child.id))
        .map(({ id: child, name }) => ({ name, ...list(child) }))
        .filter(({ files, folders }) => files.length || folders.length),
    }
  }
  return list(top)
}

/** Each file with the path to it from the shelf: the names of folders, each with a slash behind it. */
export const placedIn = <File>({ files, folders }: Listing<File>, path = ''): { item: File; folder: string }[] => [
  ...files.map(item => ({ item, folder: path })),
  ...folders.flatMap(folder => placedIn(folder, `${path}${folder.name}/`)),
]
