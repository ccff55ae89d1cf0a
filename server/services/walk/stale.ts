import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { editions } from '../../db/schema'
import type { Events } from '../events'

/** What has changed, each by its identity; `everything` where that cannot be said. */
export interface Stale {
  everything: boolean
  ids: Set<string>
  /** SHA-256 of contents that were looked into */ read: Set<string>
}

/**
 * Remembers what has changed since it was walked last.
 *
 * @param onChange is told of each change
 */
export function createStale(db: Database, events: Events, onChange: () => void) {
  let stale: Stale = { everything: true, ids: new Set(), read: new Set() }

  for (const event of ['library', 'signposts', 'catalogues'] as const) {
    events.on(event, ids => {
      for (const id of ids) stale.ids.add(id)
      onChange()
    })
  }
  // Lists lean on all entries of their catalogue, links on one.
  events.on('entries', ids => {
    for (const id of ids.flatMap(each => each.split('/'))) stale.ids.add(id)
    onChange()
  })
  events.on('read', hashes => {
    for (const sha256 of hashes) stale.read.add(sha256)
    onChange()
  })
  for (const event of ['site', 'folders', 'gates'] as const) {
    events.on(event, () => {
      stale.everything = true
      onChange()
    })
  }
  // Pages are known to have changed by their own rows.
  for (const event of ['uses', 'live'] as const) events.on(event, onChange)

  return {
    /** From now on everything counts as changed. */
    all(): void {
      stale.everything = true
    },

    /** Takes what has changed so far; who cannot walk it puts it back. */
    take(): Stale {
      const taken = stale
      stale = { everything: false, ids: new Set(), read: new Set() }
      return taken
    },

    putBack({ everything, ids, read }: Stale): void {
      stale.everything ||= everything
      for (const id of ids) stale.ids.add(id)
      for (const sha256 of read) stale.read.add(sha256)
    },

    /** The files some contents belong to: what is known of them may be said of their buttons. */
    async filesOf(hashes: Set<string>): Promise<string[]> {
      if (!hashes.size) return []
      return (await db.selectDistinct({ id: editions.fileId }).from(editions).where(among(editions.sha256, hashes))).map(row => row.id)
    },
  }
}
