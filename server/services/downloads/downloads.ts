import { and, gt, gte, inArray, lt, lte, sql, type SQL } from 'drizzle-orm'
import { csvLine, csvLines } from '../../../core/csvLine'
import {
  narrowingOf,
  type Board,
  type BoardQuery,
  type DownloadsLog,
  type DownloadsView,
  type LogItem,
  type LogQuery,
} from '../../../core/tally/board'
import type { Misses } from '../../../core/tally/daily'
import type { Narrowing, Stretch } from '../../../core/tally/columns'
import { DIMENSIONS, type Dimension } from '../../../core/tally/particulars'
import { aheadIn, barsOf, spanFound, type SpanFound } from '../../../core/tally/span'
import type { Database } from '../../db/connection'
import { downloads } from '../../db/schema'
import { createBeside } from './beside'
import { createMarks } from './marks'
import { createMisses } from './misses'
import { createNames, type Keys } from './names'
import { KEY } from './expressions'
import { createTitles, NAMED, readRows, type Row } from './table'
import { createSums } from './sums'

/** Keys that bars are told apart by; what is left is the rest's. */
const MOST_STACKED = 5
/** Rows that are read at once for a table. */
const AT_ONCE = 5000
const EVER: Stretch = { from: 0, to: Number.MAX_SAFE_INTEGER }

const toItem = ({ id, at, count, bytes, keys, path }: Row): LogItem => ({
  id,
  at,
  count,
  bytes,
  referrerPath: path,
  keys: Object.fromEntries(DIMENSIONS.map((dimension, place) => [dimension, keys[place]!])) as LogItem['keys'],
})
const keysIn = (items: LogItem[]): Keys =>
  Object.fromEntries(DIMENSIONS.map(dimension => [dimension, items.map(({ keys }) => keys[dimension]!)]))

/** What was taken, when, and from where. */
export function createDownloads(db: Database, zoneOf: () => Promise<string>, now: () => number = Date.now) {
  const sums = createSums(db)
  const namesOf = createNames(db)
  const marksOf = createMarks(db)
  const beside = createBeside(db)
  const missesOf = createMisses(db)

  async function spanOf(view: DownloadsView, firstOf = sums.first): Promise<SpanFound & { zone: string; narrow: Narrowing }> {
    const [zone, narrow] = [await zoneOf(), narrowingOf(view)]
    const first = view.span === 'all' ? await firstOf(narrow) : undefined
    return { ...spanFound(view, now(), zone, first), zone, narrow }
  }
  /** Where no bars are shown it need not be known where they begin. */
  const rowsOf = (view: DownloadsView) => spanOf(view, async () => 0)

  const whereOf = ({ from, to, narrow }: Stretch & { narrow: Narrowing }): SQL | undefined =>
    and(
      gte(downloads.at, new Date(from * 1000)),
      lt(downloads.at, new Date(to * 1000)),
      ...Object.entries(narrow).map(([dimension, key]) => sql`${KEY[dimension as Dimension]} = ${key}`),
    )

  return {
    async board({ stack, list, most, ...view }: BoardQuery): Promise<Board> {
      const span = await spanOf(view)
      const { from, to, before, unit, units, firstDay, lastDay, zone, narrow } = span
      const bars = barsOf(span, zone)
      const found = await sums.sums({
        from,
        to,
        before,
        narrow,
        bars,
        ahead: aheadIn(span, zone),
        stack: stack === 'none' ? null : stack,
        lists: [list],
        most,
        mostStacked: MOST_STACKED,
      })
      const listed = found.lists[0]!
      const more = await beside.of(
        list,
        listed.rows.map(({ key }) => key),
        narrow,
        span,
      )
      const keys: Partial<Record<Dimension, string[]>> = {}
      const name = (dimension: Dimension, some: string[]) => (keys[dimension] = [...(keys[dimension] ?? []), ...some])
      name(
        list,
        listed.rows.map(({ key }) => key),
      )
      if (stack !== 'none')
        name(
          stack,
          found.stacks.map(({ key }) => key),
        )
      for (const [dimension, key] of Object.entries(narrow)) name(dimension as Dimension, [key])
      return {
        span: { from, to, firstDay, lastDay, before, unit, units, zone },
        total: found.total,
        before: found.before,
        bars: bars.map((at, index) => ({ at, count: found.bars[index]! })),
        week: found.week,
        stacks: found.stacks,
        list: { ...listed, rows: listed.rows.map(row => ({ ...row, ...more.get(row.key) })) },
        marks: await marksOf({ from, to }, narrow),
        names: await namesOf(keys),
        any: found.total.count > 0 || (await sums.find(EVER, {}, 0, 0)).total > 0,
      }
    },

    /** The newest first. */
    async log({ offset, limit, ...view }: LogQuery): Promise<DownloadsLog> {
      const { from, to, narrow } = await rowsOf(view)
      const { ids, total } = await sums.find({ from, to }, narrow, offset, limit)
      const items = ids.length ? (await readRows(db, inArray(downloads.id, ids))).reverse().map(toItem) : []
      return { items, total, names: await namesOf(keysIn(items)) }
    },

    async misses(view: DownloadsView): Promise<Misses> {
      return missesOf(await spanOf(view))
    },

    /** All of a view as lines of a table, the oldest first. */
    async *csv(view: DownloadsView): AsyncGenerator<string> {
      const where = whereOf(await rowsOf(view))
      const titles = createTitles(namesOf)
      // The mark by which table programs know UTF-8.
      yield (
        '\uFEFF' +
        csvLine([
          'When',
          'Downloads',
          'Bytes',
          ...DIMENSIONS.flatMap(each => (NAMED.has(each) ? [each, `${each} called`] : [each])),
          'path',
        ])
      )
      const newest = await sums.newest()
      // By stretches of identities, which cost the same however far down they are and whatever is asked for; the next is read meanwhile.
      const read = (after: number) => readRows(db, and(gt(downloads.id, after), lte(downloads.id, after + AT_ONCE), where))
      let next = read(0)
      for (let after = 0; after < newest; after += AT_ONCE) {
        const rows = await next
        next = read(after + AT_ONCE)
        // Whoever asked may be gone before it is waited for.
        next.catch(() => undefined)
        await titles.learn(rows.map(({ keys }) => keys))
        yield csvLines(rows.map(({ at, count, bytes, keys, path }) => [at, `${count}`, `${bytes}`, ...titles.beside(keys), path]))
      }
    },

    close: sums.close,
  }
}
export type Downloads = ReturnType<typeof createDownloads>
