import { Tree, type Node } from '../folders/folderTree'
import { groupBy } from '../group'
import type { BundleDetails, BundleEntry } from './bundleEntry'
import { resolveBundle, type BundleMember } from './members'

/** A file as a bundle sends it: its current edition. */
export interface BundledFile {
  id: string
  folder: string | null
  fileName: string
  sha256: string
  /** bytes */
  size: number
  crc32: number
  /** when its edition came, in milliseconds since the epoch */
  created: number
}

export interface BundledFolder extends Node {
  name: string
}

/** What entries of a catalogue hold in a field. */
export interface BundledField {
  catalogue: string
  field: string
  /** of the field */
  name: string
  /** identities of files, in the order of the entries */
  files: string[]
}

/** What a bundle is made of: its entries, the folders outside the bin, and the files that the entries bring. */
export interface Recipe {
  entries: BundleEntry[]
  fields: BundledField[]
  folders: BundledFolder[]
  files: BundledFile[]
}

export interface Composition {
  members: BundleMember<BundledFile>[]
  /** what each entry comes to */
  now: BundleDetails['now']
}

const byPath = (one: { path: string; file: BundledFile }, other: { path: string; file: BundledFile }) =>
  one.path === other.path ? (one.file.id < other.file.id ? -1 : 1) : one.path < other.path ? -1 : 1

/** Bytes of a member. */
export const sizeOfMember = (member: BundleMember<BundledFile>): number =>
  'file' in member ? member.file.size : new TextEncoder().encode(member.body).length

/** The folders that entries bring, with all below them. */
export function foldersBrought(tree: Tree<BundledFolder>, entries: BundleEntry[]): string[] {
  const tops = entries.flatMap(entry => (entry.kind === 'folder' ? [entry.folder] : []))
  return [...new Set([...tops, ...tops.flatMap(top => tree.below(top).map(({ id }) => id))])]
}

/** What a bundle comes to now. In one order wherever and whenever it is made; files of the same name in the order of their identities. */
export function composeBundle({ entries, fields, folders, files }: Recipe): Composition {
  const tree = new Tree(folders)
  const byId = new Map(files.map(file => [file.id, file]))
  const byFolder = groupBy(files, file => file.folder)
  const folderOf = (id: string) => {
    const top = tree.get(id)
    if (!top) return undefined
    const depth = tree.pathTo(id).length
    const inside = tree.below(id).flatMap(({ id: folder }) => {
      const way = tree
        .pathTo(folder)
        .slice(depth)
        .map(({ name }) => `${name}/`)
        .join('')
      return (byFolder.get(folder) ?? []).map(file => ({ path: way + file.fileName, file }))
    })
    return { name: top.name, files: inside.sort(byPath) }
  }
  const fieldOf = (catalogue: string, field: string) => {
    const held = fields.find(each => each.catalogue === catalogue && each.field === field)
    return held && { name: held.name, files: held.files.flatMap(id => byId.get(id) ?? []) }
  }
  const members = resolveBundle(entries, { file: id => byId.get(id), folder: folderOf, field: fieldOf })
  const ownName = (entry: BundleEntry): string | undefined => {
    switch (entry.kind) {
      case 'text':
        return entry.name
      case 'file':
        return byId.get(entry.file)?.fileName
      case 'folder':
        return tree.get(entry.folder)?.name
      case 'field':
        return fieldOf(entry.catalogue, entry.field)?.name
    }
  }
  const byEntry = groupBy(members, member => member.entry)
  const now = Object.fromEntries(
    entries.map(entry => {
      const own = ownName(entry)
      const inside = byEntry.get(entry.id) ?? []
      const path =
        entry.kind === 'folder' || entry.kind === 'field'
          ? [entry.within, entry.name ?? own].filter(Boolean).join('/')
          : (inside[0]?.path ?? '')
      return [
        entry.id,
        {
          gone: own === undefined,
          own: own ?? '',
          path,
          files: inside.length,
          size: inside.reduce((sum, member) => sum + sizeOfMember(member), 0),
        },
      ]
    }),
  )
  return { members, now }
}
