import { asc, gt } from 'drizzle-orm'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { files, retiredHandles, retiredSignposts, signposts } from '../../db/schema'
import type { Events } from '../events'

/** The key of a handle or of a signpost's name: no handle has a slash in it. */
export const keyOfName = (name: string, signpost: boolean): string => (signpost ? `/${name}` : name)

/** Names read in one question: more would keep visitors waiting. */
const AT_ONCE = 5000

/**
 * Every handle and every signpost's name that is or was given out. One that is none of them leads nowhere, and that is
 * known without asking the database; one too many costs a question, one too few would hide a file.
 */
export function createKnownNames(db: Database, events: Events) {
  const names = new Set<string>()
  let stale = new Set<string>()
  let signpostsStale = true
  let loaded = false
  let working: Promise<void> | undefined

  events.on('library', ids => ids.forEach(id => stale.add(id)))
  events.on('signposts', () => (signpostsStale = true))

  async function loadAll(): Promise<void> {
    for (const table of [files, retiredHandles] as const) {
      for (let last = '', count = AT_ONCE; count === AT_ONCE;) {
        const rows = await db
          .select({ handle: table.handle })
          .from(table)
          .where(gt(table.handle, last))
          .orderBy(asc(table.handle))
          .limit(AT_ONCE)
        for (const { handle } of rows) names.add(handle)
        count = rows.length
        last = rows.at(-1)?.handle ?? last
      }
    }
    loaded = true
  }

  async function freshen(): Promise<void> {
    const ids = [...stale]
    const withSignposts = signpostsStale
    stale = new Set()
    signpostsStale = false
    try {
      if (!loaded) await loadAll()
      // A handle that is given back or taken away is that of a file that changed.
      if (ids.length) {
        for (const { handle } of await db.select({ handle: files.handle }).from(files).where(among(files.id, ids))) names.add(handle)
        for (const { handle } of await db
          .select({ handle: retiredHandles.handle })
          .from(retiredHandles)
          .where(among(retiredHandles.fileId, ids)))
          names.add(handle)
      }
      if (withSignposts) {
        for (const { name } of await db.select({ name: signposts.name }).from(signposts)) names.add(keyOfName(name, true))
        for (const { name } of await db.select({ name: retiredSignposts.name }).from(retiredSignposts)) names.add(keyOfName(name, true))
      }
    } catch (error) {
      ids.forEach(id => stale.add(id))
      signpostsStale ||= withSignposts
      throw error
    }
  }

  return {
    /** Whether a name may lead somewhere. */
    async has(key: string): Promise<boolean> {
      while (working || !loaded || stale.size || signpostsStale) await (working ??= freshen().finally(() => (working = undefined)))
      return names.has(key)
    },
  }
}
