import { and, asc, desc, eq, exists, gt, ilike, isNull, or, sql, type SQL } from 'drizzle-orm'
import type { Arrival, ArrivalQuery } from '../../../core/letterbox/arrival'
import { CLOSED_GATE } from '../../../core/gate/gate'
import { notFound } from '../../../core/problem'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { holding } from '../../db/like'
import { arrivalFiles, arrivals, files } from '../../db/schema'
import { deleteForGood } from '../library/bin'

type Row = typeof arrivals.$inferSelect

/** What came by letterboxes, for those at the desk. */
export function createArrivals(db: Database) {
  const ofArrival = (that: SQL | undefined) =>
    exists(
      db
        .select({ one: sql`1` })
        .from(arrivalFiles)
        .where(and(eq(arrivalFiles.arrivalId, arrivals.id), that)),
    )

  function filterOf({ q, waiting, file }: Pick<ArrivalQuery, 'q' | 'waiting' | 'file'>): SQL | undefined {
    const pattern = holding(q)
    return and(
      q
        ? or(
            ilike(arrivals.name, pattern),
            ilike(arrivals.email, pattern),
            ilike(arrivals.words, pattern),
            ilike(arrivals.answersTitle, pattern),
            /^\d{1,15}$/.test(q) ? eq(arrivals.number, Number(q)) : undefined,
            ofArrival(ilike(arrivalFiles.fileName, pattern)),
          )
        : undefined,
      waiting ? isNull(arrivals.away) : undefined,
      file ? ofArrival(eq(arrivalFiles.fileId, file)) : undefined,
    )
  }

  async function itemsOf(rows: Row[]): Promise<Arrival[]> {
    if (!rows.length) return []
    const own = await db
      .select()
      .from(arrivalFiles)
      .where(
        among(
          arrivalFiles.arrivalId,
          rows.map(({ id }) => id),
        ),
      )
      .orderBy(asc(arrivalFiles.position))
    return rows.map(({ id, at, away, answersId, answersTitle, ...row }) => ({
      ...row,
      id,
      at: at.toISOString(),
      away: away?.toISOString() ?? null,
      answers: answersTitle ? { id: answersId, title: answersTitle } : null,
      files: own
        .filter(({ arrivalId }) => arrivalId === id)
        .map(({ fileId, fileName, size, sha256 }) => ({ id: fileId, fileName, size, sha256 })),
    }))
  }

  async function get(id: string): Promise<Arrival> {
    const [item] = await itemsOf(await db.select().from(arrivals).where(eq(arrivals.id, id)))
    if (!item) throw notFound('arrival')
    return item
  }

  return {
    get,

    /** The newest first. */
    async list({ from, limit, ...filter }: ArrivalQuery): Promise<{ items: Arrival[]; total: number }> {
      const where = filterOf(filter)
      const rows = await db.select().from(arrivals).where(where).orderBy(desc(arrivals.at), asc(arrivals.id)).limit(limit).offset(from)
      return { items: await itemsOf(rows), total: await db.$count(arrivals, where) }
    },

    /** How many came since a moment. */
    since: (moment: Date): Promise<number> => db.$count(arrivals, gt(arrivals.at, moment)),

    /** Notes that somebody has done with it, or has not after all. @throws Problem 404 */
    async putAway(id: string, away: boolean, by: string): Promise<Arrival> {
      await db
        .update(arrivals)
        .set(
          away
            ? { away: sql`coalesce(${arrivals.away}, now())`, awayBy: sql`coalesce(${arrivals.awayBy}, ${by})` }
            : { away: null, awayBy: null },
        )
        .where(eq(arrivals.id, id))
      return get(id)
    },

    /** Forgets who sent it, and when; its files stay where they are. @throws Problem 404 */
    async remove(id: string): Promise<void> {
      const gone = await db.delete(arrivals).where(eq(arrivals.id, id)).returning({ id: arrivals.id })
      if (!gone.length) throw notFound('arrival')
    },

    /** Erases what some addresses sent, with those of its files that are still for the desk alone, in the caller's transaction. */
    async eraseOf(tx: Queryable, emails: readonly string[]): Promise<void> {
      const gone = await tx
        .select({ fileId: arrivalFiles.fileId })
        .from(arrivalFiles)
        .innerJoin(arrivals, eq(arrivals.id, arrivalFiles.arrivalId))
        .where(among(arrivals.email, emails))
      await tx.delete(arrivals).where(among(arrivals.email, emails))
      const ids = gone.flatMap(({ fileId }) => fileId ?? [])
      if (ids.length) await deleteForGood(tx, and(among(files.id, ids), eq(files.gate, CLOSED_GATE)))
    },
  }
}
export type Arrivals = ReturnType<typeof createArrivals>
