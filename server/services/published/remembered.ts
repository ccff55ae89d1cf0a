import { LRUCache } from 'lru-cache'
import type { Events } from '../events'
import { kept, type Kept } from '../kept'
import type { Made } from './packed'

/** What went into a page, so that it is written anew once any of it may have changed. */
export interface Leans {
  /** files whose facts it shows */
  files: Set<string>
  bytes: Set<string>
  /** it lists what lies in a folder: any change of the library may change it */
  lists: boolean
  /** it lists files by words inside: what is read in any of them may change it */
  asksWords: boolean
  /** it says how often files were downloaded */
  counts: boolean
  /** what it shows hangs on what day it is */
  timely: boolean
  /** entries it leads to, and the one whose page it is */
  entries: Set<string>
  /** catalogues it lists entries of */
  entriesOf: Set<string>
  /** catalogues whose order, names and addresses it shows */
  catalogues: Set<string>
}

/** A page as it was rendered, and what it leans on. */
export interface Rendered extends Leans {
  as: Made
}

/** Milliseconds between two times at which pages that ask for words inside follow what was read. */
const WORDS_TOGETHER = 2000

/** How long a page is kept whose shelves hang on what day it is, in milliseconds. */
const HOUR = 3_600_000

/** Pages that were rendered, kept until something on them may have changed. */
export function rememberPages(events: Events) {
  const rendered = new LRUCache<string, Rendered>({ max: 2000 })
  /** lists as somebody asked for them: there are as many as anybody likes */
  const asked = new LRUCache<string, Rendered>({ max: 300 })
  const messages = new LRUCache<string, Kept<Made>>({ max: 50 })
  /** those that are being rendered, by where they will be remembered, with the changes there had been when that began */
  const underWay = new Map<string, { since: number; page: Promise<Rendered | undefined> }>()
  // Counts the changes, so that what was rendered before one is not remembered after it.
  let age = 0
  const forget = (outdated: (page: Rendered) => boolean) => {
    age++
    messages.clear()
    for (const pages of [rendered, asked]) for (const [key, page] of pages.entries()) if (outdated(page)) pages.delete(key)
  }
  const forgetAll = () => forget(() => true)
  events.on('live', forgetAll)
  events.on('site', forgetAll)
  events.on('library', ids => forget(page => page.lists || ids.some(id => page.files.has(id))))
  events.on('downloads', ids => forget(page => page.counts && ids.some(id => page.files.has(id))))
  events.on('folders', () => forget(page => page.lists))
  events.on('entries', ids => {
    const touched = ids.map(id => id.split('/') as [string, string])
    const [catalogues, entries] = [new Set(touched.map(([catalogue]) => catalogue)), new Set(touched.map(([, entry]) => entry))]
    forget(page => [...page.entriesOf].some(id => catalogues.has(id)) || [...page.entries].some(id => entries.has(id)))
  })
  events.on('catalogues', ids => forget(page => ids.some(id => page.catalogues.has(id) || page.entriesOf.has(id))))
  // Files are read one after another: what lists them by words inside follows the first at once and then several together, or it would be
  // rendered for each.
  let followed = -Infinity
  let following: NodeJS.Timeout | undefined
  function follow() {
    following = undefined
    followed = performance.now()
    forget(page => page.asksWords)
  }
  events.on('read', hashes => {
    forget(page => hashes.some(sha256 => page.bytes.has(sha256)))
    const rest = followed + WORDS_TOGETHER - performance.now()
    if (rest <= 0) follow()
    else following ??= setTimeout(follow, rest).unref()
  })

  return {
    forgetAll,

    /** A page by its slug that is remembered. */
    known: (slug: string): Rendered | undefined => rendered.get(slug),

    /**
     * A page by its slug and what is asked of its lists; rendered where it is not remembered, once for all who ask for it meanwhile.
     *
     * @param render gives undefined where there is none
     */
    async page(slug: string, params: URLSearchParams | undefined, render: () => Promise<Rendered | undefined>) {
      const [pages, key] = params ? [asked, `${slug}?${params}`] : [rendered, slug]
      const known = pages.get(key)
      if (known) return known
      const joined = underWay.get(key)
      // One that was begun before a change may not know of it.
      if (joined?.since === age) return joined.page
      const rendering = { since: age, page: render() }
      underWay.set(key, rendering)
      try {
        const page = await rendering.page
        if (page && rendering.since === age) pages.set(key, page, page.timely ? { ttl: HOUR } : {})
        return page
      } finally {
        if (underWay.get(key) === rendering) underWay.delete(key)
      }
    },

    /** What is said to visitors. Many ask for what is not there at once: it is written for all of them together. */
    async message(key: string, write: () => Promise<Made>): Promise<Made> {
      const message = messages.get(key) ?? kept(write)
      messages.set(key, message)
      return message.get()
    },

    /** The same where it is remembered. */
    knownMessage: (key: string): Made | undefined => messages.get(key)?.now(),
  }
}
