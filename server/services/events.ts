import { EventEmitter } from 'node:events'

interface TroughEvents {
  /** files were added, renamed, moved, deleted or replaced */
  library: [fileIds: string[]]
  /** the tree of folders changed */
  folders: []
  /** the contents of blobs were looked into */
  read: [sha256: string[]]
  /** what lies in the store under some hashes was found wrong, mended or replaced */
  bytes: [sha256: string[]]
  /** where files are used changed, in a draft or live */
  uses: []
  /** signposts were made, turned, renamed or taken down */
  signposts: [ids: string[]]
  /** a live page changed */
  live: []
  /** the site's name, address, style or looks changed */
  site: []
  /** settings of the site changed */
  settings: [keys: string[]]
  /** downloads of files were counted */
  downloads: [fileIds: string[]]
  /** addresses the site had before were noted, led elsewhere or missed */
  oldAddresses: []
  /** somebody signed in or out, or an account changed */
  sessions: []
  /** gates were made, changed or taken away, or their passwords */
  gates: []
  /** personal links were made or changed */
  links: []
  /** somebody left an address, confirmed it or was erased */
  contacts: []
  /** messages were written, sent or not taken */
  outbox: []
  /** there is something to tell other services, or was told */
  hooks: []
  /** something came by a letterbox, or was done with */
  arrivals: []
  /** entries were written, put live or taken away: each by `catalogue/entry` */
  entries: [ids: string[]]
  /** names, addresses, order or fields of catalogues changed, or which of their entries are live */
  catalogues: [ids: string[]]
  /** a table of entries came in, or is looked at */
  entryImports: []
}
export type Topic = keyof TroughEvents
export const TOPICS: readonly Topic[] = [
  'library',
  'folders',
  'read',
  'bytes',
  'uses',
  'signposts',
  'live',
  'site',
  'settings',
  'downloads',
  'oldAddresses',
  'sessions',
  'gates',
  'links',
  'contacts',
  'outbox',
  'hooks',
  'arrivals',
  'entries',
  'catalogues',
  'entryImports',
]

/**
 * Tells the parts that keep something in memory that what they keep is out of date. Nobody sends these by hand: the
 * database does, after the commit and to every process (the triggers in `migrations/0014_touched.sql`).
 */
export type Events = EventEmitter<TroughEvents>

export function createEvents(): Events {
  const events: Events = new EventEmitter<TroughEvents>()
  events.setMaxListeners(50)
  return events
}

/** Passes on what the database says was touched: a topic, and the identities where it has some. */
export function passOn(events: Events, touched: string): void {
  const [topic, ...ids] = touched.split(' ')
  events.emit(topic as 'library', ids)
}
