import { Readable } from 'node:stream'
import { LRUCache } from 'lru-cache'
import type { Selection } from '../../../core/files/selection'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import { ZipLayout, type ZipMember } from '../../../core/zip/layout'
import { distinctPaths } from '../../../core/zip/names'
import type { Database } from '../../db/connection'
import type { Store } from '../../store/store'
import { readTree } from './folders'
import { filesById } from './items'
import { filesIn, topmost } from './placing'

const HOUR = 60 * 60 * 1000

export interface PreparedZip { id: string, name: string, size: number, files: number }

/** Zips of what was selected, made while they are sent. */
export function createZipping(db: Database, store: Store) {
  const prepared = new LRUCache<string, { name: string, layout: ZipLayout }>({ max: 100, ttl: HOUR })

  async function membersOf({ files: fileIds, folders: folderIds }: Selection): Promise<{ name: string, members: ZipMember[] }> {
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
    const kept = items.filter(item => !item.deleted)
    const paths = distinctPaths(kept.map(item => (chosen.has(item.id) ? '' : pathOf(item.folder)) + item.fileName))
    return {
      name: tops.length === 1 && !fileIds.length ? `${tops[0]!.name}.zip` : 'files.zip',
      members: kept.map((item, index) => ({ name: paths[index]!, size: item.size, crc32: Number.parseInt(item.crc32, 16), modified: new Date(item.changed), source: item.sha256 })),
    }
  }

  async function* bytesOf(layout: ZipLayout): AsyncGenerator<Uint8Array> {
    for (const stretch of layout.stretches()) {
      if (stretch instanceof Uint8Array) yield stretch
      else yield* store.read(stretch.source, stretch) as AsyncIterable<Buffer>
    }
  }

  return {
    /** Lays out a zip of a selection, to be downloaded within the hour. */
    async prepare(selection: Selection): Promise<PreparedZip> {
      const { name, members } = await membersOf(selection)
      if (!members.length) throw new Problem(422, 'There is no file in that selection.', 'Choose files, or folders that have some.')
      const [id, layout] = [newId(), new ZipLayout(members)]
      prepared.set(id, { name, layout })
      return { id, name, size: layout.size, files: members.length }
    },

    /** @throws Problem 404 where it was not prepared, or too long ago */
    open(id: string): { name: string, size: number, stream: () => Readable } {
      const zip = prepared.get(id)
      if (!zip) throw notFound('zip')
      return { name: zip.name, size: zip.layout.size, stream: () => Readable.from(bytesOf(zip.layout), { objectMode: false }) }
    },
  }
}
export type Zipping = ReturnType<typeof createZipping>
