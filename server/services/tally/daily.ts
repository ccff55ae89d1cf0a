import { and, eq, inArray, lt, sql } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { keptText, OCCASIONS, WRITTEN_BY_VISITORS, type Happened, type Occasion } from '../../../core/tally/occasions'
import { referredBy } from '../../../core/tally/particulars'
import { dayAt } from '../../../core/tally/span'
import type { Database } from '../../db/connection'
import { dailyCounts } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { Who } from './who'

/** Something that happened to a visitor, before who it was is made unreadable. */
export interface Seen extends Happened {
  address: string
  userAgent: string | undefined
  /** Referer and Host, where it matters what led there */
  referer?: string
  host?: string
}

/** Milliseconds between what happens and its being written down, at the most. */
const FLUSH_AFTER = 1000
/** Within this a page that is seen again is not seen twice (COUNTER Code of Practice, section 7.3). */
const DOUBLE_CLICK = 30_000
/** Whatever else happens to one visitor again within this is one (common practice: half an hour is a visit). */
const VISIT = 30 * 60_000
/** Visitors that are told apart at once. */
const MOST_TOLD = 50_000
/** Different addresses or words of one day: whoever makes them up fills no disk. What comes after these is counted together. */
const MOST_WRITTEN = 500
/** Different things that wait to be written, as on a full disk, before those that visitors wrote go together: they fill no memory. */
const MOST_WAITING = 5000
/** Addresses and words that visitors wrote are kept this many days: somebody may have typed a name. */
const KEPT_DAYS = 400
const DAY = 86_400_000

const WRITTEN = OCCASIONS.filter(what => WRITTEN_BY_VISITORS.has(what))

interface Counted extends Happened {
  day: string
}
const keyOf = ({ day, what, of, detail }: Counted) => JSON.stringify([what, day, of, detail])

/** Counts by day what happens besides downloads, after the answer and off its path. */
export function createDailyTally(
  db: Database,
  who: Who,
  /** the time zone of days, and under which hosts the site answers */
  site: () => Promise<{ zone: string; hosts: string[] }>,
  now: () => number = Date.now,
) {
  const perf = { now }
  const seen = new LRUCache<string, true>({ max: MOST_TOLD, ttl: DOUBLE_CLICK, perf })
  const others = new LRUCache<string, true>({ max: MOST_TOLD, ttl: VISIT, perf })
  let happened: (Happened & { at: number; referer?: string; host?: string })[] = []
  let counts = new Map<string, { one: Counted; count: number }>()
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  function repeats({ what, of, address, userAgent }: Seen): boolean {
    const known = what === 'seen' ? seen : others
    const key = `${who.markOf(address, userAgent)}\n${what}\n${of}`
    const is = known.has(key)
    // A row of them is one, however long it goes on.
    known.set(key, true)
    return is
  }

  function add(each: Counted): void {
    const isMuch = counts.size >= MOST_WAITING && WRITTEN_BY_VISITORS.has(each.what)
    const one = isMuch ? { ...each, of: '', detail: '' } : each
    const key = keyOf(one)
    const known = counts.get(key)
    if (known) known.count++
    else counts.set(key, { one, count: 1 })
  }

  async function sum(): Promise<void> {
    if (!happened.length) return
    const { zone, hosts } = await site()
    const batch = happened
    happened = []
    const days = new Map<number, string>()
    for (const { at, what, of, detail, referer, host } of batch) {
      // Clocks change, and days end, at full quarters of an hour.
      const quarter = Math.floor(at / 900_000)
      const day = days.get(quarter) ?? dayAt(at, zone)
      days.set(quarter, day)
      const { path, referrer, referrerPath } = referredBy(referer, [host ?? '', ...hosts])
      add({ day, what, of: keptText(of), detail: keptText(detail || (path ?? referrer + referrerPath)) })
    }
  }

  /** What there may be any number of goes together from some number on. */
  async function withinBounds(batch: { one: Counted; count: number }[]): Promise<{ one: Counted; count: number }[]> {
    const bounded = batch.filter(({ one }) => WRITTEN_BY_VISITORS.has(one.what))
    if (!bounded.length) return batch
    const known = new Map<string, Set<string>>()
    for (const { one } of bounded) known.set(`${one.what} ${one.day}`, new Set())
    for (const [key, set] of known) {
      const [what, day] = key.split(' ') as [Occasion, string]
      const rows = await db
        .select({ of: dailyCounts.of, detail: dailyCounts.detail })
        .from(dailyCounts)
        .where(and(eq(dailyCounts.what, what), eq(dailyCounts.day, day)))
      for (const { of, detail } of rows) set.add(`${of}\n${detail}`)
    }
    return batch.map(each => {
      const { one, count } = each
      const set = known.get(`${one.what} ${one.day}`)
      const key = `${one.of}\n${one.detail}`
      if (!set || set.has(key)) return each
      if (set.size >= MOST_WRITTEN) return { one: { ...one, of: '', detail: '' }, count }
      set.add(key)
      return each
    })
  }

  async function write(): Promise<void> {
    await sum()
    if (!counts.size) return
    const merged = new Map<string, { one: Counted; count: number }>()
    for (const { one, count } of await withinBounds([...counts.values()])) {
      const known = merged.get(keyOf(one))
      merged.set(keyOf(one), { one, count: count + (known?.count ?? 0) })
    }
    // In one order: two processes that count the same wait for each other instead of for ever.
    const batch = [...merged].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, each]) => each)
    const column = (read: (each: (typeof batch)[number]) => string | number) => sql.param(batch.map(read))
    const began = counts
    counts = new Map()
    try {
      await db.execute(sql`insert into ${dailyCounts} (day, what, of_what, detail, count)
        select * from unnest(${column(({ one }) => one.day)}::date[], ${column(({ one }) => one.what)}::text[], ${column(({ one }) => one.of)}::text[],
          ${column(({ one }) => one.detail)}::text[], ${column(({ count }) => count)}::int[])
        on conflict (what, day, of_what, detail) do update set count = ${dailyCounts.count} + excluded.count`)
    } catch (error) {
      // What could not be written is written the next time.
      for (const [key, each] of counts) {
        const known = began.get(key)
        if (known) known.count += each.count
        else began.set(key, each)
      }
      counts = began
      throw error
    }
  }

  function flush(): Promise<void> {
    clearTimeout(timer)
    timer = undefined
    writing = writing.catch(() => undefined).then(write)
    return writing
  }
  const later = () => (timer ??= setTimeout(() => flush().catch(laterTrouble('what happened could not be counted yet')), FLUSH_AFTER))

  return {
    /** Counts something that happened to a visitor; nothing of robots, and nothing twice. */
    see(one: Seen): void {
      if (who.isRobot(one.userAgent) || repeats(one)) return
      const { what, of, detail, referer, host } = one
      happened.push({ what, of, detail, referer, host, at: now() })
      later()
    },
    /** Counts something as it is. */
    note(one: Happened, at = now()): void {
      happened.push({ ...one, at })
      later()
    },
    flush,
    /** Forgets what visitors wrote long ago. */
    async tidy(): Promise<void> {
      const oldest = new Date(now() - KEPT_DAYS * DAY).toISOString().slice(0, 10)
      await db.delete(dailyCounts).where(and(inArray(dailyCounts.what, WRITTEN), lt(dailyCounts.day, oldest)))
    },
  }
}
export type DailyTally = ReturnType<typeof createDailyTally>
