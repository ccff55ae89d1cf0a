import { TransactionRollbackError, and, asc, eq, isNull, lte, sql } from 'drizzle-orm'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import { createQueue } from '../../../core/queue'
import type { TimedAct, TimedItem } from '../../../core/timetable/timedItem'
import { momentOf } from '../../../core/timetable/wallTime'
import type { Database, Queryable } from '../../db/connection'
import { timetable } from '../../db/schema'
import { laterTrouble } from '../../log'
import { getFile } from '../files/items'
import { showEditionIn } from '../library/showing'
import type { Signposts } from '../signposts/signposts'
import type { SiteService } from '../site/site'

/** What can be done to entries in the caller's transaction, by their identities. */
export interface TimedEntries {
  /** @throws Problem 404 or 409 where it cannot go live */
  goLiveIn(tx: Queryable, id: string): Promise<void>
  /** @throws Problem 404 */
  leaveIn(tx: Queryable, id: string): Promise<void>
}

/** How often the clock is looked at while something is to come, in milliseconds: it may be set, and machines sleep. */
const GLANCE = 250

/** What another act has to have alike to take the place of one. */
function sameAs(act: TimedAct): Partial<TimedAct> {
  switch (act.kind) {
    case 'edition':
      return { kind: act.kind, file: act.file }
    case 'signpost':
      return { kind: act.kind, signpost: act.signpost }
    case 'entry':
      return act
  }
}

const isToCome = and(isNull(timetable.failed), isNull(timetable.done))

/** Acts that are set to happen: each happens once, whole, within a second of its time, or when the process is next there. */
export function createTimetable(
  db: Database,
  { signposts, entries, site }: { signposts: Signposts; entries: TimedEntries; site: SiteService },
  now: () => number = Date.now,
) {
  const inTurn = createQueue()
  let glancing: ReturnType<typeof setInterval> | undefined
  /** when the first is due; infinite where nothing is to come */
  let next = Infinity

  /** Does an act in the caller's transaction. */
  async function perform(tx: Queryable, act: TimedAct): Promise<void> {
    if (act.kind === 'signpost') return signposts.turnIn(tx, act.signpost, act.file)
    if (act.kind === 'entry') return act.to === 'live' ? entries.goLiveIn(tx, act.entry) : entries.leaveIn(tx, act.entry)
    const file = await getFile(tx, act.file)
    if (file.deleted) throw new Problem(409, `“${file.title}” is in the bin.`, 'Restore it first.')
    await showEditionIn(tx, act.file, act.number)
  }

  async function fire({ id, act }: { id: string; act: TimedAct }): Promise<void> {
    try {
      await db.transaction(async tx => {
        const rows = await tx
          .update(timetable)
          .set({ done: new Date(now()) })
          .where(and(eq(timetable.id, id), isNull(timetable.done)))
          .returning({ id: timetable.id })
        if (rows.length) await perform(tx, act)
      })
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      // What cannot happen is told, and not tried again and again.
      await db.update(timetable).set({ failed: error.title }).where(eq(timetable.id, id))
    }
  }

  async function plan(): Promise<void> {
    const [first] = await db.select({ at: timetable.at }).from(timetable).where(isToCome).orderBy(asc(timetable.at)).limit(1)
    next = first?.at.getTime() ?? Infinity
    if (next === Infinity) {
      clearInterval(glancing)
      glancing = undefined
    } else if (!glancing) {
      glancing = setInterval(() => {
        if (now() >= next) service.run().catch(laterTrouble('what was set to happen could not be done yet'))
      }, GLANCE)
      glancing.unref()
    }
  }

  async function list(): Promise<TimedItem[]> {
    const { id, at, act, failed } = timetable
    const rows = await db.select({ id, at, act, failed }).from(timetable).where(isNull(timetable.done)).orderBy(asc(timetable.at))
    return rows.map(row => ({ ...row, at: row.at.toISOString() }))
  }

  const service = {
    list,

    /**
     * Sets an act to happen; one that was set for the same file, signpost or entry is taken back.
     *
     * @param wall as clocks show it in the site's time zone
     * @throws Problem 422 where that time has passed, or clocks never show it; 404 where there is nothing to do it to
     */
    async set(act: TimedAct, wall: string): Promise<TimedItem> {
      const { timeZone } = await site.get()
      const at = momentOf(wall, timeZone)
      if (at.getTime() <= now()) throw new Problem(422, 'That time has passed.', 'Choose a later one, or do it now.', { field: 'at' })
      const id = newId()
      await db.transaction(async tx => {
        // Whether it could be done is tried, and taken back.
        await tx
          .transaction(async trial => {
            await perform(trial, act)
            trial.rollback()
          })
          .catch((error: unknown) => {
            if (!(error instanceof TransactionRollbackError)) throw error
          })
        await tx.delete(timetable).where(and(isNull(timetable.done), sql`${timetable.act} @> ${JSON.stringify(sameAs(act))}::jsonb`))
        await tx.insert(timetable).values({ id, at, act })
      })
      await plan()
      return { id, act, at: at.toISOString(), failed: null }
    },

    /** Takes what was set back. */
    async drop(id: string): Promise<void> {
      const rows = await db
        .delete(timetable)
        .where(and(eq(timetable.id, id), isNull(timetable.done)))
        .returning({ id: timetable.id })
      if (!rows.length) throw notFound('time')
      await plan()
    },

    /** Does all that is due, the earliest first. */
    run: (): Promise<void> =>
      inTurn(async () => {
        const due = await db
          .select()
          .from(timetable)
          .where(and(isToCome, lte(timetable.at, new Date(now()))))
          .orderBy(asc(timetable.at))
        for (const row of due) await fire(row)
        await plan()
      }),

    /** Ends what is under way. */
    async close(): Promise<void> {
      clearInterval(glancing)
      await inTurn(async () => undefined)
    },
  }
  return service
}
export type Timetable = ReturnType<typeof createTimetable>
