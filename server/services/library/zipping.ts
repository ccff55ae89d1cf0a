import { LRUCache } from 'lru-cache'
import { splitExtension } from '../../../core/files/fileName'
import type { FileItem } from '../../../core/files/item'
import type { Selection } from '../../../core/files/selection'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import { ZipLayout, type ZipMember } from '../../../core/zip/layout'
import { distinctPaths } from '../../../core/zip/names'
import type { Database } from '../../db/connection'
import type { Bundles, LaidOut } from '../bundles/bundles'
import { readTree } from './folders'
import { filesById } from './items'
import { filesIn, topmost } from './placing'

const HOUR = 60 * 60 * 1000

export interface PreparedZip { id: string, name: string, size: number, files: number }

/** Zips of what was selected, made while they are sent. */
export function createZipping(db: Database, bundles: Bundles) {
  const prepared = new LRUCache<string, LaidOut>({ max: 100, ttl: HOUR })

  /** A file as it goes into a zip; of a bundle, all that is in it, in a folder of its name. */
  async function membersOf(item: FileItem, folder: string): Promise<ZipMember[]> {
    if (!item.bundle) return [{ name: folder + item.fileName, size: item.size, crc32: Number.parseInt(item.crc32, 16), modified: new Date(item.changed), source: item.sha256 }]
    const { layout, fileName } = await bundles.laidOut(item.id)
    return layout.members.map(member => ({ ...member, name: `${folder}${splitExtension(fileName)[0]}/${member.name}` }))
  }

  async function gather({ files: fileIds, folders: folderIds }: Selection): Promise<{ name: string, members: ZipMember[] }> {
    const tree = await readTree(db)
    const tops = topmost(tree, folderIds)
    const inside = await filesIn(db, tops.flatMap(({ id }) => tree.below(id).map(folder => folder.id)))
    const items = await filesById(db, [...new Set([...fileIds, ...inside.map(file => file.id)])])
    const chosen = new Set(fileIds)
    /** Path below the folder that was chosen, with its name in front; none for a file chosen itself. */
    const pathOf = (folder: string | null): string => {
      const path = tree.pathTo(folder)
      const from = path.findIndex(({ id }) => tops.some(top => top.id === id))
      return path.slice(from).map(({ name }) => `${name}/`).join('')
    }
    const members: ZipMember[] = []
    for (const item of items) if (!item.deleted) members.push(...await membersOf(item, chosen.has(item.id) ? '' : pathOf(item.folder)))
    const paths = distinctPaths(members.map(member => member.name))
    return {
      name: tops.length === 1 && !fileIds.length ? `${tops[0]!.name}.zip` : 'files.zip',
      members: members.map((member, index) => ({ ...member, name: paths[index]! })),
    }
  }

  function offer(zip: LaidOut): PreparedZip {
    const id = newId()
    prepared.set(id, zip)
    return { id, name: zip.fileName, size: zip.layout.size, files: zip.layout.members.length }
  }

  return {
    /** Keeps a zip that was laid out elsewhere, to be downloaded within the hour. */
    offer,

    /** Lays out a zip of a selection, to be downloaded within the hour. */
    async prepare(selection: Selection): Promise<PreparedZip> {
      const { name, members } = await gather(selection)
      if (!members.length) throw new Problem(422, 'There is no file in that selection.', 'Choose files, or folders that have some.')
      return offer({ layout: new ZipLayout(members), fileName: name, fingerprint: newId(), changed: new Date() })
    },

    /** @throws Problem 404 where it was not prepared, or too long ago */
    open(id: string): LaidOut {
      const zip = prepared.get(id)
      if (!zip) throw notFound('zip')
      return zip
    },
  }
}
export type Zipping = ReturnType<typeof createZipping>
