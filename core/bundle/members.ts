import { cleanFolderName } from '../folders/folderItem'
import { distinctPaths } from '../zip/safePaths'
import type { BundleEntry } from './bundleEntry'

/** What is asked of the library to lay a bundle out. */
export interface BundleLibrary<File> {
  /** a file outside the bin, by identity */
  file: (id: string) => File | undefined
  /** a folder outside the bin, with all that is in it and below; paths are below the folder, such as `2026/a.pdf` */
  folder: (id: string) => { name: string; files: { path: string; file: File }[] } | undefined
  /** what entries hold in a field, in their order */
  field: (catalogue: string, field: string) => { name: string; files: File[] } | undefined
}

/** One file of the zip to be. */
export type BundleMember<File> = { entry: string; path: string } & ({ file: File } | { body: string })

const under = (...parts: string[]) => parts.filter(Boolean).join('/')

function* membersOf<File extends { fileName: string }>(entry: BundleEntry, library: BundleLibrary<File>): Generator<BundleMember<File>> {
  if (entry.kind === 'text') {
    yield { entry: entry.id, path: under(entry.within, entry.name), body: entry.body }
  } else if (entry.kind === 'file') {
    const file = library.file(entry.file)
    if (file) yield { entry: entry.id, path: under(entry.within, entry.name ?? file.fileName), file }
  } else if (entry.kind === 'field') {
    const held = library.field(entry.catalogue, entry.field)
    for (const file of held?.files ?? [])
      yield { entry: entry.id, path: under(entry.within, entry.name ?? cleanFolderName(held!.name), file.fileName), file }
  } else {
    const folder = library.folder(entry.folder)
    for (const { path, file } of folder?.files ?? [])
      yield { entry: entry.id, path: under(entry.within, entry.name ?? folder!.name, path), file }
  }
}

/**
 * The files of a bundle as they are now, in its order; no two have the same path. What is gone from the
 * library is left out.
 */
export function resolveBundle<File extends { fileName: string }>(
  entries: BundleEntry[],
  library: BundleLibrary<File>,
): BundleMember<File>[] {
  const members = entries.flatMap(entry => [...membersOf(entry, library)])
  const paths = distinctPaths(members.map(member => member.path))
  return members.map((member, index) => ({ ...member, path: paths[index]! }))
}
