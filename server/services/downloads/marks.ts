import { and, desc, eq, gt, gte, lt, sql } from 'drizzle-orm'
import type { Board } from '../../../core/tally/board'
import type { Narrowing, Stretch } from '../../../core/tally/columns'
import type { Database } from '../../db/connection'
import { editions, files, pages, pageVersions, signposts, timetable } from '../../db/schema'

/** More of them say nothing beside bars. */
const MOST = 30

const secondsOf = (moment: Date) => moment.getTime() / 1000

/**
 * What was done in a stretch of time that may have changed how often files are taken: new editions, pages that went live, and what happened
 * at its set time.
 */
export function createMarks(db: Database) {
  type Moment = typeof editions.created | typeof pageVersions.published | typeof timetable.done
  const during = (column: Moment, { from, to }: Stretch) => and(gte(column, new Date(from * 1000)), lt(column, new Date(to * 1000)))

  /** What had been set to happen, and did. */
  async function setTimes(stretch: Stretch, file: string | undefined): Promise<Board['marks']> {
    const rows = await db
      .select({
        at: sql<Date>`${timetable.done}`.mapWith(timetable.done),
        act: timetable.act,
        title: files.title,
        signpost: signposts.title,
      })
      .from(timetable)
      .innerJoin(files, eq(files.id, sql`${timetable.act}->>'file'`))
      .leftJoin(signposts, eq(signposts.id, sql`${timetable.act}->>'signpost'`))
      .where(and(during(timetable.done, stretch), file === undefined ? undefined : eq(files.id, file)))
      .orderBy(desc(timetable.done))
      .limit(MOST)
    return rows.flatMap(({ at, act, title, signpost }) => {
      const mark = (words: string, place: string | null) => ({ at: secondsOf(at), words: `At its set time: ${words}`, place })
      if (act.kind === 'edition') return mark(`edition ${act.number}${file ? '' : ` of “${title}”`} went live`, `/desk/files/${act.file}`)
      return act.kind === 'signpost'
        ? mark(
            `signpost “${signpost ?? 'taken down since'}” was turned to “${title}”`,
            signpost ? `/desk/signposts?at=${act.signpost}` : null,
          )
        : []
    })
  }

  /** @param campaigns those that began in it, in seconds since 1970 */
  return async (stretch: Stretch, { file, page }: Narrowing, campaigns: { key: string; at: number }[]): Promise<Board['marks']> => {
    const renewed = page
      ? []
      : await db
          .select({ at: editions.created, number: editions.number, id: files.id, title: files.title })
          .from(editions)
          .innerJoin(files, eq(files.id, editions.fileId))
          .where(and(during(editions.created, stretch), gt(editions.number, 1), file === undefined ? undefined : eq(files.id, file)))
          .orderBy(desc(editions.created))
          .limit(MOST)
    const published = file
      ? []
      : await db
          .select({ at: pageVersions.published, id: pages.id, title: pages.title, number: pageVersions.number })
          .from(pageVersions)
          .innerJoin(pages, eq(pages.id, pageVersions.pageId))
          .where(
            and(during(pageVersions.published, stretch), gt(pageVersions.number, 1), page === undefined ? undefined : eq(pages.id, page)),
          )
          .orderBy(desc(pageVersions.published))
          .limit(MOST)
    return [
      ...renewed.map(({ at, number, id, title }) => ({
        at: secondsOf(at),
        words: file ? `Edition ${number} came in` : `Edition ${number} of “${title}” came in`,
        place: `/desk/files/${id}`,
      })),
      ...(page ? [] : await setTimes(stretch, file)),
      ...campaigns.map(({ key, at }) => ({ at, words: `First download by campaign ${key}`, place: null })),
      ...published.map(({ at, id, title }) => ({ at: secondsOf(at), words: `“${title}” went live anew`, place: `/desk/pages/${id}` })),
    ]
      .sort((one, other) => other.at - one.at)
      .slice(0, MOST)
      .reverse()
  }
}
