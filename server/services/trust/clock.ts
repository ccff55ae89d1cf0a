import { eq, sql } from 'drizzle-orm'
import { z } from 'zod'
import type { Database } from '../../db/connection'
import { settings } from '../../db/schema'

const KEY = 'clock'
const DAY = 24 * 60 * 60 * 1000
/** A clock that is further ahead of when it was believed last was set wrong, or Trough did not run for long. */
const PLAUSIBLE = 60 * DAY

/** When the clock was believed last, in milliseconds since the epoch, and for how many milliseconds it has gone on in doubt since. */
const seenSchema = z.object({ believed: z.number(), doubted: z.number() })

/**
 * Says whether the clock can be believed before anything is thrown away by it: one that is years ahead at one start would
 * empty the bin at once. What is dated by a clock in doubt speaks for it at no later start either: only having gone on for
 * a day does, all starts together.
 *
 * @param now milliseconds since the epoch
 * @param uptime milliseconds this process has run for
 */
export function createClock(db: Database, now: () => number = Date.now, uptime: () => number = () => performance.now()) {
  let asked = uptime()

  async function newestRecord(): Promise<number | undefined> {
    const {
      rows: [row],
    } = await db.execute<{ newest: string | null }>(sql`select greatest(
      (select max(created) from editions), (select max(changed) from files), (select max(changed) from pages), (select max(at) from downloads), (select max(at) from journal), (select max(used) from sessions)) as newest`)
    return row!.newest === null ? undefined : new Date(row!.newest).getTime()
  }

  return {
    /** To be asked now and then: what passes in between is what the clock has gone on for. */
    async isPlausible(): Promise<boolean> {
      const goneOn = uptime() - asked
      asked += goneOn
      const [row] = await db.select().from(settings).where(eq(settings.key, KEY))
      // Where nothing was ever done, nothing is old.
      const { believed, doubted } = row ? seenSchema.parse(row.value) : { believed: (await newestRecord()) ?? now(), doubted: 0 }
      const plausible = now() - believed < PLAUSIBLE || doubted + goneOn >= DAY
      const value = plausible ? { believed: now(), doubted: 0 } : { believed, doubted: doubted + goneOn }
      await db.insert(settings).values({ key: KEY, value }).onConflictDoUpdate({ target: settings.key, set: { value } })
      return plausible
    },
  }
}
