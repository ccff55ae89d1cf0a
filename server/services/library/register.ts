import type { FileItem } from '../../../core/files/fileItem'
import { Cards } from '../../../core/find/cards'
import type { Database } from '../../db/connection'
import type { Events } from '../events'
import { createQueue } from '../../../core/queue'
import { allFiles, countUses, filesById, filesWithBytes } from '../files/items'

/**
 * Every file of the library in memory, so that lists of tens of thousands are filtered and sorted in
 * milliseconds. What an event names as changed is read again before the next answer.
 */
export function createRegister(db: Database, events: Events) {
  const cards = new Cards()
  const oneAtATime = createQueue()
  let loaded = false
  let staleFiles = new Set<string>()
  let staleBytes = new Set<string>()
  let usesStale = false
  /** what is out of date is being read: the cards are not yet as the database has them */
  let freshening = false

  const outdate = (ids: string[]) => ids.forEach(id => staleFiles.add(id))
  events.on('library', outdate)
  events.on('downloads', outdate)
  events.on('read', hashes => hashes.forEach(sha256 => staleBytes.add(sha256)))
  events.on('uses', () => (usesStale = true))
  async function freshenUses(): Promise<void> {
    usesStale = false
    const counts = await countUses(db).catch((error: unknown) => {
      usesStale = true
      throw error
    })
    const changed: FileItem[] = []
    for (const item of cards.items()) {
      const count = counts.get(item.id) ?? 0
      if (item.uses !== count) changed.push({ ...item, uses: count })
    }
    cards.update(changed)
  }

  async function freshenFiles(): Promise<void> {
    const [ids, bytes] = [[...staleFiles], [...staleBytes]]
    staleFiles = new Set()
    staleBytes = new Set()
    try {
      const items = [...(await filesById(db, ids)), ...(await filesWithBytes(db, bytes))]
      const found = new Set(items.map(item => item.id))
      cards.update(
        items,
        ids.filter(id => !found.has(id)),
      )
    } catch (error) {
      // What could not be read is still out of date.
      outdate(ids)
      bytes.forEach(sha256 => staleBytes.add(sha256))
      throw error
    }
  }

  async function freshen(): Promise<Cards> {
    if (!loaded) {
      for await (const items of allFiles(db)) cards.update(items)
      loaded = true
    }
    freshening = true
    try {
      if (staleFiles.size || staleBytes.size) await freshenFiles()
      if (usesStale) await freshenUses()
    } finally {
      freshening = false
    }
    return cards
  }

  const isFresh = () => loaded && !freshening && !staleFiles.size && !staleBytes.size && !usesStale

  return {
    /** The cards as the database has them now. */
    cards: (): Promise<Cards> | Cards => (isFresh() ? cards : oneAtATime(freshen)),
  }
}
export type Register = ReturnType<typeof createRegister>
