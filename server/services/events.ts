import { EventEmitter } from 'node:events'

interface TroughEvents {
  /** files were added, renamed, deleted, replaced or looked into */
  library: []
  /** a live page changed */
  live: []
  /** the site's name or address changed */
  site: []
}

/** Tells the parts that keep something in memory that what they keep is out of date. */
export type Events = EventEmitter<TroughEvents>
export const createEvents = (): Events => new EventEmitter<TroughEvents>()
