import { and, eq, isNull, sql } from 'drizzle-orm'
import { Problem, notFound } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { editions, files, timetable } from '../../db/schema'

/** Takes what is set to happen to an edition off the timetable, in the caller's transaction. */
export async function unsetEdition(tx: Queryable, file: string, number: number): Promise<void> {
  await tx
    .delete(timetable)
    .where(
      and(
        isNull(timetable.done),
        sql`${timetable.act}->>'kind' = 'edition'`,
        sql`${timetable.act}->>'file' = ${file}`,
        sql`(${timetable.act}->>'number')::int = ${number}`,
      ),
    )
}

/**
 * Makes another edition the current one, in the caller's transaction: every button follows.
 *
 * @throws Problem 404, or 409 where that edition was withdrawn
 */
export async function showEditionIn(tx: Queryable, id: string, number: number): Promise<void> {
  const [edition] = await tx
    .select({ withdrawn: editions.withdrawn })
    .from(editions)
    .where(and(eq(editions.fileId, id), eq(editions.number, number)))
  if (!edition) throw notFound('edition')
  if (edition.withdrawn) throw new Problem(409, `Edition ${number} was withdrawn.`, 'Give it out again first.')
  await tx.update(files).set({ edition: number, changed: new Date() }).where(eq(files.id, id))
  await unsetEdition(tx, id, number)
}
