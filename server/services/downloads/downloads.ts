import { csvCells, csvLine } from '../../../core/csvLine'
import {
  narrowingOf,
  viewSchema,
  type Board,
  type BoardQuery,
  type DownloadsLog,
  type DownloadsView,
  type FoundView,
  type LogItem,
  type LogQuery,
} from '../../../core/tally/board'
import type { Misses } from '../../../core/tally/occasions'
import type { DerivedKeys, Narrowing, Stretch } from '../../../core/tally/columns'
import { DERIVED, DIMENSIONS, type Listed } from '../../../core/tally/particulars'
import { aheadIn, barsOf, spanFound, type SpanFound } from '../../../core/tally/span'
import type { Database } from '../../db/connection'
import { forgetPersons } from '../tally/persons'
import { createBeside } from './beside'
import { createDerived } from './derived'
import { createSeeking } from './seeking'
import { createMarks } from './marks'
import { createMisses } from './misses'
import { createNames, type Keys } from './names'
import { createTitles, NAMED, readRows, type Row } from './table'
import { createSums } from './sums'

/** Keys that bars are told apart by; what is left is the rest's. */
const MOST_STACKED = 5
/** Rows that are read at once for a table. */
const AT_ONCE = 5000
const EVER: Stretch = { from: 0, to: Number.MAX_SAFE_INTEGER }

/** Who asks. */
export interface Asker {
  /** may know who somebody is */
  people: boolean
}

const toItem = ({ id, at, count, bytes, keys, path, took, address }: Row, { people }: Asker): LogItem => ({
  id,
  at,
  count,
  bytes,
  referrerPath: path,
  took,
  address: people ? address : '',
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
  const derivedOf = createDerived(db)
  const wantedBy = createSeeking(db)

  interface Found extends SpanFound {
    zone: string
    narrow: Narrowing
    derived: DerivedKeys
  }

  /** @param also by what is asked besides what the view is narrowed to */
  async function spanOf(view: DownloadsView, firstOf = sums.first, also: Listed[] = []): Promise<Found> {
    const [zone, narrow] = [await zoneOf(), narrowingOf(view)]
    const derived = await derivedOf(DERIVED.filter(each => narrow[each] !== undefined || also.includes(each)))
    const first = view.span === 'all' ? await firstOf({ narrow, derived }) : undefined
    return { ...spanFound(view, now(), zone, first), zone, narrow, derived }
  }
  /** Where no bars are shown it need not be known where they begin. */
  const rowsOf = (view: DownloadsView) => spanOf(view, async () => 0)

  /** Identities of a view's downloads, the newest first, and how many there are. */
  async function find({ q, ...view }: FoundView, asker: Asker, offset: number, limit: number) {
    const { from, to, narrow, derived } = await rowsOf(view)
    return sums.find({ from, to }, { narrow, derived, wanted: await wantedBy(q, asker) }, offset, limit)
  }

  return {
    async board({ stack, list, most, ...view }: BoardQuery, { people }: Asker): Promise<Board> {
      const span = await spanOf(view, sums.first, [list, ...(stack === 'none' ? [] : [stack])])
      const { from, to, before, unit, units, firstDay, lastDay, zone, narrow, derived } = span
      const bars = barsOf(span, zone)
      const found = await sums.sums({
        from,
        to,
        before,
        narrow,
        derived,
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
      const keys: Partial<Record<Listed, string[]>> = {}
      const name = (dimension: Listed, some: string[]) => (keys[dimension] = [...(keys[dimension] ?? []), ...some])
      name(
        list,
        listed.rows.map(({ key }) => key),
      )
      if (stack !== 'none')
        name(
          stack,
          found.stacks.map(({ key }) => key),
        )
      for (const [dimension, key] of Object.entries(narrow)) name(dimension as Listed, [key])
      return {
        span: { from, to, firstDay, lastDay, before, unit, units, zone },
        total: found.total,
        before: found.before,
        bars: bars.map((at, index) => ({ at, count: found.bars[index]! })),
        week: found.week,
        stacks: found.stacks,
        list: { ...listed, rows: listed.rows.map(row => ({ ...row, ...more.get(row.key) })) },
        marks: await marksOf({ from, to }, narrow, await sums.beginnings('campaign', { from, to })),
        names: await namesOf(keys, people),
        any: found.total.count > 0 || (await sums.find(EVER, { narrow: {}, derived: {} }, 0, 0)).total > 0,
      }
    },

    /** The newest first. */
    async log({ offset, limit, ...view }: LogQuery, asker: Asker): Promise<DownloadsLog> {
      const { ids, total } = await find(view, asker, offset, limit)
      const items = (await readRows(db, ids)).map(row => toItem(row, asker))
      return { items, total, names: await namesOf(keysIn(items), asker.people) }
    },

    /** How often each file was taken in the last days, as the board says it. */
    async takenIn(days: '7' | '30' | '90'): Promise<ReadonlyMap<string, number>> {
      const { from, to, narrow, derived } = await rowsOf(viewSchema.parse({ span: days, against: 'none' }))
      const found = await sums.sums({
        from,
        to,
        before: null,
        narrow,
        derived,
        bars: [from],
        ahead: [{ from, seconds: 0 }],
        stack: null,
        lists: ['file'],
        most: Infinity,
        mostStacked: 0,
      })
      return new Map(found.lists[0]!.rows.map(({ key, count }) => [key, count]))
    },

    async misses(view: DownloadsView): Promise<Misses> {
      return missesOf(await spanOf(view))
    },

    /** All of a view as lines of a table, the oldest first. */
    async *csv(view: FoundView, asker: Asker): AsyncGenerator<string> {
      const { ids } = await find(view, asker, 0, Number.MAX_SAFE_INTEGER)
      ids.reverse()
      const titles = createTitles(namesOf, asker.people)
      // The mark by which table programs know UTF-8.
      yield (
        '\uFEFF' +
        csvLine([
          'When',
          'Downloads',
          'Bytes',
          ...DIMENSIONS.flatMap(each => (NAMED.has(each) ? [each, `${each} called`] : [each])),
          'path',
          'milliseconds',
          'address',
        ])
      )
      // The next are read while these are written.
      const read = (from: number) => readRows(db, ids.slice(from, from + AT_ONCE))
      let next = read(0)
      for (let from = 0; from < ids.length; from += AT_ONCE) {
        const rows = await next
        next = read(from + AT_ONCE)
        // Whoever asked may be gone before it is waited for.
        next.catch(() => undefined)
        await titles.learn(rows.map(({ keys }) => keys))
        yield rows
          .map(({ at, count, bytes, keys, path, took, address }) => {
            const last = path || address ? csvCells([path, `${took}`, asker.people ? address : '']) : `,${took},`
            return `${at},${count},${bytes},${titles.cells(keys)},${last}\r\n`
          })
          .join('')
      }
    },

    /** Takes out of all downloads that somebody had them; that they were taken stays. @param person as they are counted by */
    forget: (person: string): Promise<void> => forgetPersons(db, [person]),

    close: sums.close,
  }
}
export type Downloads = ReturnType<typeof createDownloads>
