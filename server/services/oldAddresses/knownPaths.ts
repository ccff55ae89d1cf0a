import { asc, gt, sql } from 'drizzle-orm'
import type { Database } from '../../db/connection'
import { oldAddresses } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { ShortPathsMessage, ShortPathsTask } from '../../workers/shortPaths'
import type { Events } from '../events'
import { createAsker, workerScript } from '../workerHost'
import { includes, shortOf } from './shortPaths'

/** Paths read in one question: the database answers nobody else meanwhile. */
const AT_ONCE = 5000
/** Milliseconds a worker may take for them. */
const PATIENCE = 60_000

/** Which addresses the site had before, so that asking for what was never there costs no question to the database. */
export function createKnownPaths(db: Database, events: Events) {
  let paths: Float64Array | undefined
  let age = 0
  let reading: Promise<void> | undefined

  events.on('oldAddresses', () => {
    age++
    paths = undefined
    void warm().catch(laterTrouble('the old addresses could not be read in'))
  })

  /** The paths behind one, as lines: as one text they cost visitors nothing. */
  async function linesAfter(last: string): Promise<{ lines: string; last: string; count: number }> {
    const some = db
      .select({ path: oldAddresses.path })
      .from(oldAddresses)
      .where(gt(oldAddresses.path, last))
      .orderBy(asc(oldAddresses.path))
      .limit(AT_ONCE)
      .as('some')
    const [row] = await db
      .select({
        lines: sql<string>`coalesce(string_agg(${some.path}, E'\\n'), '')`,
        last: sql<string>`coalesce(max(${some.path}), '')`,
        count: sql<number>`count(*)::int`,
      })
      .from(some)
    return row!
  }

  async function read(): Promise<void> {
    for (;;) {
      const began = age
      const worker = createAsker<ShortPathsTask, ShortPathsMessage>(workerScript('shortPaths'), PATIENCE)
      try {
        for (let last = '', count = AT_ONCE; count === AT_ONCE && began === age;) {
          const some = await linesAfter(last)
          if (some.count) await worker.ask(some.lines)
          ;({ last, count } = some)
        }
        const { all } = await worker.ask('all')
        if (began !== age) continue
        paths = all
        return
      } finally {
        await worker.close()
      }
    }
  }

  const warm = (): Promise<void> => (reading ??= read().finally(() => (reading = undefined)))

  return {
    warm,
    /** Waits until nothing is read any more; what went wrong with it was told when it did. */
    settled: async (): Promise<void> => {
      await reading?.catch(() => undefined)
    },
    /** Whether an address may be one of them; any may, as long as they are not read in. */
    mayHave(path: string): boolean {
      if (!paths) return true
      return paths.length > 0 && includes(paths, shortOf(path))
    },
  }
}
