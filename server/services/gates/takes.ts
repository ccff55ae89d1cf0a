import { and, eq, gte, sql } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import type { GateRule } from '../../../core/gate/gate'
import { hasRoom } from '../../../core/gate/times'
import { startOfDay } from '../../../core/timetable/wallTime'
import type { Database } from '../../db/connection'
import { gateTakes, gates, personalLinks } from '../../db/schema'

/** What one pass has of one file within this long is one download, in however many pieces. */
const ONE_TAKE = 24 * 60 * 60 * 1000
/** Takes that are known without a question. */
const KEPT = 50_000

export interface Take {
  /** or the identity of a personal link */
  gate: string
  pass: string
  file: string
}

/** What has its downloads counted. */
const COUNTED = { gate: gates, link: personalLinks }

/** Counts what is let through gates: never one more than their limits say, however many ask at once. */
export function createTakes(db: Database, zone: () => Promise<string>, now: () => number = Date.now) {
  const taken = new LRUCache<string, true>({ max: KEPT, ttl: ONE_TAKE, perf: { now } })

  return {
    /** Whether a take goes on that was counted before; from memory alone. */
    goesOn: ({ gate, pass, file }: Take): boolean => taken.has(`${gate} ${pass} ${file}`),

    /** Counts a download, unless it goes on with one that was; gives whether there was room for it. */
    async take(
      { gate, pass, file }: Take,
      rule: Pick<GateRule, 'most' | 'mostEach' | 'mostADay'>,
      by: keyof typeof COUNTED,
    ): Promise<boolean> {
      const table = COUNTED[by]
      const moment = now()
      const today = startOfDay(moment, await zone())
      const granted = await db.transaction(async tx => {
        // Who else counts at this gate waits until this is settled.
        const [there] = await tx.select({ id: table.id }).from(table).where(eq(table.id, gate)).for('update')
        if (!there) return false
        const [before] = await tx
          .select({ at: gateTakes.at })
          .from(gateTakes)
          .where(
            and(
              eq(gateTakes.gateId, gate),
              eq(gateTakes.pass, pass),
              eq(gateTakes.fileId, file),
              gte(gateTakes.at, new Date(moment - ONE_TAKE)),
            ),
          )
          .limit(1)
        if (before) return true
        const [counts] = await tx
          .select({
            inAll: sql<number>`count(*)::int`,
            each: sql<number>`(count(*) filter (where ${gateTakes.pass} = ${pass}))::int`,
            today: sql<number>`(count(*) filter (where ${gateTakes.at} >= ${today.toISOString()}::timestamptz))::int`,
          })
          .from(gateTakes)
          .where(eq(gateTakes.gateId, gate))
        if (!hasRoom(rule, counts!)) return false
        await tx.insert(gateTakes).values({ gateId: gate, pass, fileId: file, at: new Date(moment) })
        return true
      })
      if (granted) taken.set(`${gate} ${pass} ${file}`, true)
      return granted
    },
  }
}
export type Takes = ReturnType<typeof createTakes>
