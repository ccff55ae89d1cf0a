import type { Node, Tree } from '../folders/folderTree'
import { groupBy } from '../group'

/** What a shelf lists: files, and folders with what they list in turn. */
export interface Listing<File> {
  files: File[]
  folders: FolderListing<File>[]
  /** files there are in all, where they are more than stand here */
  total?: number
  /** how many of the files, the first ones, keep their place whatever the order */
  pinned?: number
}
export type FolderListing<File> = Listing<File> & { id: string; name: string }

/** Files without a folder between them. */
export const flat = <File>(files: File[]): Listing<File> => ({ files, folders: [] })

/** All files of a listing, each in its order. */
export const filesListed = <File>({ files, folders }: Listing<File>): File[] => [...files, ...folders.flatMap(filesListed)]

/** A listing with its files made into something else. */
export const mapListing = <File, Other>({ files, folders, ...rest }: Listing<File>, make: (file: File) => Other): Listing<Other> => ({
  ...rest,
  files: files.map(file => make(file)),
  folders: folders.map(folder => ({ id: folder.id, name: folder.name, ...mapListing(folder, make) })),
})

type Folders = Tree<Node & { name: string }>

/** Makes listings of folders out of files, in the order they come in; folders without a file in or below them are left out. */
function lister<File extends { folder: string | null }>(tree: Folders, files: File[]) {
  const inside = groupBy(files, ({ folder }) => folder)
  const met = new Set<string>()
  const named = (folders: { id: string; name: string }[]): FolderListing<File>[] =>
    folders
      .filter(folder => !met.has(folder.id))
      .map(({ id, name }) => ({ id, name, ...list(id) }))
      .filter(({ files, folders }) => files.length || folders.length)
  function list(id: string | null): Listing<File> {
    if (id) met.add(id)
    return { files: inside.get(id) ?? [], folders: named(tree.childrenOf(id)) }
  }
  return { list, named }
}

/** Files by the folders below one in which they lie. */
export const listingOf = <File extends { folder: string | null }>(top: string | null, tree: Folders, files: File[]): Listing<File> =>
  lister(tree, files).list(top)

/** Files by some folders and those below them; one within another is not listed twice. */
export function listingOfSeveral<File extends { folder: string | null }>(ids: string[], tree: Folders, files: File[]): Listing<File> {
  const chosen = new Set(ids)
  const topmost = [...chosen].filter(id => !tree.pathTo(id).some(above => above.id !== id && chosen.has(above.id)))
  return { files: [], folders: lister(tree, files).named(topmost.flatMap(id => tree.get(id) ?? [])) }
}

/** Each file with the path to it from the shelf: the names of folders, each with a slash behind it. */
export const placedIn = <File>({ files, folders }: Listing<File>, path = ''): { item: File; folder: string }[] => [
  ...files.map(item => ({ item, folder: path })),
  ...folders.flatMap(folder => placedIn(folder, `${path}${folder.name}/`)),
]
