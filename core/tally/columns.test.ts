import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Columns, type Counted, type SumsQuestion } from './columns'
import { DIMENSIONS, type Dimension } from './particulars'

const keysOf = (given: Partial<Record<Dimension, string>>) => DIMENSIONS.map(dimension => given[dimension] ?? '')
const rows: Counted[] = [
  { id: 1, at: 100, count: 1, bytes: 10, keys: keysOf({ file: 'a', page: 'home' }) },
  { id: 2, at: 110, count: 2, bytes: 20, keys: keysOf({ file: 'b', page: 'home' }) },
  { id: 5, at: 250, count: 1, bytes: 10, keys: keysOf({ file: 'a', page: 'trade' }) },
  { id: 6, at: 310, count: 4, bytes: 40, keys: keysOf({ file: 'a' }) },
]
const question: SumsQuestion = {
  from: 100,
  to: 300,
  before: { from: 0, to: 100 },
  narrow: {},
  derived: {},
  bars: [100, 200],
  ahead: [{ from: 100, seconds: 0 }],
  stack: 'file',
  lists: ['file', 'page'],
  most: 10,
  mostStacked: 5,
}
const columnsOf = (those: Counted[]) => {
  const columns = new Columns()
  columns.add(those)
  return columns
}

describe('sums of downloads', () => {
  it('are told for a stretch, in bars, by what they are narrowed to', () => {
    expect(columnsOf(rows).sums(question)).toEqual({
      total: { count: 4, bytes: 40 },
      before: { count: 0, bytes: 0 },
      bars: [3, 1],
      // 1970 began on a Thursday.
      week: Array.from({ length: 168 }, (_, hour) => (hour === 3 * 24 ? 4 : 0)),
      stacks: [
        { key: 'a', bars: [1, 1] },
        { key: 'b', bars: [2, 0] },
      ],
      lists: [
        {
          dimension: 'file',
          keys: 2,
          rows: [
            { key: 'a', count: 2, bytes: 20, before: 0, line: [1, 1] },
            { key: 'b', count: 2, bytes: 20, before: 0, line: [2, 0] },
          ],
        },
        {
          dimension: 'page',
          keys: 2,
          rows: [
            { key: 'home', count: 3, bytes: 30, before: 0, line: [3, 0] },
            { key: 'trade', count: 1, bytes: 10, before: 0, line: [0, 1] },
          ],
        },
      ],
    })
    expect(columnsOf(rows).sums({ ...question, narrow: { file: 'a', page: 'home' } }).total.count).toBe(1)
    expect(columnsOf(rows).sums({ ...question, narrow: { file: 'nothing' } })).toMatchObject({ total: { count: 0 }, bars: [0, 0] })
  })
  it('leave out what is known already, and find the newest first', () => {
    const columns = columnsOf(rows)
    columns.add(rows)
    expect(columns.newest).toBe(6)
    expect(columns.find({ from: 0, to: 1000 }, { narrow: {}, derived: {} }, 0, 3)).toEqual({ ids: [6, 5, 2], total: 4 })
    expect(columns.find({ from: 0, to: 1000 }, { narrow: {}, derived: {} }, 3, 3)).toEqual({ ids: [1], total: 4 })
    expect(columns.find({ from: 0, to: 1000 }, { narrow: { file: 'a' }, derived: {} }, 99, 3)).toEqual({ ids: [], total: 3 })
    expect([
      columns.first({ narrow: {}, derived: {} }),
      columns.first({ narrow: { page: 'trade' }, derived: {} }),
      columns.first({ narrow: { page: 'x' }, derived: {} }),
    ]).toEqual([100, 250, undefined])
    expect(new Columns().newest).toBe(0)
  })

  it('are the same as rows added up one by one, whatever they are', () => {
    const key = fc.constantFrom('', 'a', 'b', 'c')
    const row = fc.record({
      at: fc.integer({ min: 0, max: 99 }),
      count: fc.integer({ min: 1, max: 5 }),
      file: key,
      page: key,
      country: key,
    })
    fc.assert(
      fc.property(
        fc.array(row, { maxLength: 60 }),
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 1, max: 50 }),
        key,
        (those, from, length, page) => {
          const to = from + length
          const counted = those.map(({ at, count, ...keys }, index) => ({ id: index + 1, at, count, bytes: count, keys: keysOf(keys) }))
          const bars = [from, from + Math.ceil(length / 2)]
          const narrow: SumsQuestion['narrow'] = page ? { page } : {}
          const found = columnsOf(counted).sums({ ...question, from, to, bars, narrow, before: null, lists: ['country'], stack: null })
          const inside = those.filter(one => one.at >= from && one.at < to && (!page || one.page === page))
          const sum = (some: typeof those) => some.reduce((all, { count }) => all + count, 0)
          expect(found.total.count).toBe(sum(inside))
          expect(found.week.reduce((all, count) => all + count, 0)).toBe(found.total.count)
          expect(found.bars).toEqual([sum(inside.filter(({ at }) => at < bars[1]!)), sum(inside.filter(({ at }) => at >= bars[1]!))])
          for (const { key: country, count, line } of found.lists[0]!.rows) {
            expect(count).toBe(sum(inside.filter(one => one.country === country)))
            expect(line.reduce((all, part) => all + part, 0)).toBe(count)
          }
          expect(found.lists[0]!.rows.reduce((all, { count }) => all + count, 0)).toBe(found.total.count)
        },
      ),
    )
  })
})
