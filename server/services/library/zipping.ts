import { LRUCache } from 'lru-cache'
import type { Selection } from '../../../core/files/selection'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import type { Database } from '../../db/connection'
import type { LaidOut, Pack } from '../bundles/packing'
import { readTree } from '../files/readTree'
import { filesById } from '../files/items'
import { filesIn, topmost } from './placing'

const HOUR = 60 * 60 * 1000

export interface PreparedZip {
  id: string
  name: string
  size: number
  files: number
}

/** Zips of what was selected, made while they are sent. */
export function createZipping(db: Database, pack: Pack) {
  const prepared = new LRUCache<string, LaidOut>({ max: 100, ttl: HOUR })

  async function gather({ files: fileIds, folders: folderIds }: Selection): Promise<LaidOut> {
    const tree = await readTree(db)
    const tops = topmost(tree, folderIds)
    const inside = await filesIn(
      db,
      tops.flatMap(({ id }) => tree.below(id).map(folder => folder.id)),
    )
    const items = await filesById(db, [...new Set([...fileIds, ...inside.map(file => file.id)])])
    const chosen = new Set(fileIds)
    /** Path below the folder that was chosen, with its name in front; none for a file chosen itself. */
    const pathOf = (folder: string | null): string => {
      const path = tree.pathTo(folder)
      const from = path.findIndex(({ id }) => tops.some(top => top.id === id))
      return path
        .slice(from)
        .map(({ name }) => `${name}/`)
        .join('')
    }
    const placed = items.filter(item => !item.deleted).map(item => ({ item, folder: chosen.has(item.id) ? '' : pathOf(item.folder) }))
    return pack(placed, tops.length === 1 && !fileIds.length ? `${tops[0]!.name}.zip` : 'files.zip')
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
      const zip = await gather(selection)
      if (!zip.layout.members.length)
        throw new Problem(422, 'There is no file in that selection.', 'Choose files, or folders that have some.')
      return offer(zip)
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
