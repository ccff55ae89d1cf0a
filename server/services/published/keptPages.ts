import { LRUCache } from 'lru-cache'
import { onContactRules } from '../contacts/contacts'
import type { Events } from '../events'

/** Pages that are kept as they were written: those asked for most. */
const KEPT = 400

/** Pages that Trough itself makes of what visitors may have, kept until any of that changes. */
export function keptPages<Page>(events: Events) {
  const pages = new LRUCache<string, Promise<Page>>({ max: KEPT })
  const forget = () => pages.clear()
  for (const event of ['library', 'folders', 'read', 'bytes', 'live', 'uses', 'site', 'signposts', 'gates'] as const)
    events.on(event, forget)
  onContactRules(events, forget)

  return {
    /** A page by what tells it from others; who asks while it is written waits for that. */
    get(key: string, write: () => Promise<Page>): Promise<Page> {
      const known = pages.get(key) ?? write()
      pages.set(key, known)
      known.catch(() => pages.delete(key))
      return known
    },
  }
}
