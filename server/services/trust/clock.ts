import { sql } from 'drizzle-orm'
import type { Database } from '../../db/connection'

const DAY = 24 * 60 * 60 * 1000
/** A clock that is further ahead of the newest record than this was set wrong, or nothing was done here for long. */
const PLAUSIBLE = 60 * DAY

/**
 * Whether the clock can be believed before anything is thrown away by it: it is not far ahead of the newest record. One
 * that is years ahead at one start would empty the bin at once.
 */
export async function isClockPlausible(db: Database, now: number): Promise<boolean> {
  const { rows: [row] } = await db.execute<{ newest: string | null }>(sql`select greatest(
    (select max(created) from editions), (select max(changed) from files), (select max(changed) from pages), (select max(at) from downloads), (select max(at) from journal), (select max(used) from sessions)) as newest`)
  // Where nothing was ever done, nothing is old.
  return row!.newest === null || now - new Date(row!.newest).getTime() < PLAUSIBLE
}
