import { EventEmitter } from 'node:events'

interface TroughEvents {
  /** files were added, renamed, moved, deleted or replaced */
  library: [fileIds: string[]]
  /** the tree of folders changed */
  folders: []
  /** the contents of a blob were looked into */
  read: [sha256: string]
  /** where files are used changed, in a draft or live */
  uses: []
  /** signposts were made, turned, renamed or taken down */
  signposts: [ids: string[]]
  /** a live page changed */
  live: []
  /** the site's name or address changed */
  site: []
  /** downloads of files were counted */
  downloads: [fileIds: string[]]
}

/** Tells the parts that keep something in memory that what they keep is out of date. */
export type Events = EventEmitter<TroughEvents>
export const createEvents = (): Events => new EventEmitter<TroughEvents>()
