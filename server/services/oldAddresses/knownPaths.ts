import { createHash } from 'node:crypto'
import { setImmediate as nextTurn } from 'node:timers/promises'
import { asc, gt } from 'drizzle-orm'
import type { Database } from '../../db/connection'
import { oldAddresses } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { Events } from '../events'

/** Paths read in one question: more would keep visitors waiting. */
const AT_ONCE = 1000

/** 48 bits of a path's SHA-1: hundreds of thousands of paths in a few megabytes. Two that fall together cost a question, no more. */
const shortOf = (path: string): number => createHash('sha1').update(path).digest().readUIntBE(0, 6)

/** Which addresses the site had before, so that asking for what was never there costs no question to the database. */
export function createKnownPaths(db: Database, events: Events) {
  let paths: Set<number> | undefined
  let age = 0
  let reading: Promise<void> | undefined

  events.on('oldAddresses', () => {
    age++
    paths = undefined
    void warm().catch(laterTrouble('the old addresses could not be read in'))
  })

  async function read(): Promise<void> {
    for (;;) {
      const began = age
      const found = new Set<number>()
      for (let last = '', count = AT_ONCE; count === AT_ONCE && began === age;) {
        const rows = await db.select({ path: oldAddresses.path }).from(oldAddresses).where(gt(oldAddresses.path, last)).orderBy(asc(oldAddresses.path)).limit(AT_ONCE)
        for (const { path } of rows) found.add(shortOf(path))
        count = rows.length
        last = rows.at(-1)?.path ?? last
        await nextTurn()
      }
      if (began !== age) continue
      paths = found
      return
    }
  }

  const warm = (): Promise<void> => reading ??= read().finally(() => reading = undefined)

  return {
    warm,
    /** Whether an address may be one of them; any may, as long as they are not read in. */
    mayHave: (path: string): boolean => paths === undefined || paths.has(shortOf(path)),
  }
}
