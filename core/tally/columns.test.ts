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

describe('columns that are asked for more', () => {
  const columns = new Columns()
  columns.add(rows)
  // Of before, and come in after.
  columns.add([
    { id: 7, at: 50, count: 3, bytes: 0, keys: keysOf({ file: 'b', campaign: 'spring-letter', referrer: 'kilnclub.example' }) },
    { id: 8, at: 120, count: 1, bytes: 0, keys: keysOf({ file: 'c', person: 'p1' }) },
  ])
  const ever = { from: 0, to: 1000 }
  const derived = { inFolder: { a: 'guides', b: 'guides', c: 'lists' } }

  it('tell files apart by what is said of them now, and narrow to it', () => {
    const sums = columns.sums({ ...question, ...ever, before: null, derived, bars: [0], stack: 'inFolder', lists: ['inFolder'] })
    expect(sums.lists[0]!.rows.map(({ key, count }) => [key, count])).toEqual([
      ['guides', 11],
      ['lists', 1],
    ])
    expect(sums.stacks.map(({ key, bars }) => [key, bars])).toEqual([
      ['guides', [11]],
      ['lists', [1]],
    ])
    expect(columns.find(ever, { narrow: { inFolder: 'lists' }, derived }, 0, 9)).toEqual({ ids: [8], total: 1 })
    // What nothing is said of stands under nothing.
    expect(columns.find(ever, { narrow: { inFolder: '' }, derived: { inFolder: { a: 'guides' } } }, 0, 9).ids.toSorted()).toEqual([2, 7, 8])
    expect(columns.find(ever, { narrow: { inFolder: 'gone' }, derived }, 0, 9).total).toBe(0)
  })

  it('stand in order of time where hours lie between, whenever they came in', () => {
    const late = new Columns()
    const day = 86_400
    late.add([
      { id: 1, at: 10 * day, count: 1, bytes: 1, keys: keysOf({ file: 'a' }) },
      { id: 2, at: 11 * day, count: 2, bytes: 1, keys: keysOf({ file: 'b' }) },
    ])
    late.add([{ id: 3, at: 2 * day, count: 4, bytes: 1, keys: keysOf({ file: 'c' }) }])
    expect(late.find({ from: 0, to: 99 * day }, { narrow: {}, derived: {} }, 0, 9).ids).toEqual([2, 1, 3])
    // What comes next is known to be new.
    late.add([
      { id: 3, at: 2 * day, count: 4, bytes: 1, keys: keysOf({ file: 'c' }) },
      { id: 4, at: 12 * day, count: 8, bytes: 1, keys: keysOf({ file: 'c' }) },
    ])
    const { lists } = late.sums({ ...question, from: 0, to: 99 * day, before: null, bars: [0, 5 * day], lists: ['file'] })
    expect(lists[0]!.rows.map(({ key, line }) => [key, line])).toEqual([
      ['c', [4, 8]],
      ['b', [0, 2]],
      ['a', [0, 1]],
    ])
  })

  it('find what has some words, or identities that have', () => {
    const found = (wanted: object, narrow = {}) =>
      columns.find(ever, { narrow, derived: {}, wanted: { text: '', ids: {}, ...wanted } }, 0, 9).ids
    expect(found({ text: 'letter' })).toEqual([7])
    expect(found({ text: 'kilnclub' })).toEqual([7])
    expect(found({ text: 'nothing', ids: { person: ['p1'], page: ['trade'] } }).toSorted()).toEqual([5, 8])
    expect(found({ text: 'letter', ids: { file: ['a'] } }, { page: 'home' })).toEqual([1])
    expect(found({ text: 'home' })).toEqual([])
  })

  it('say when each key was first, where that was in the stretch', () => {
    expect(columns.beginnings('campaign', ever)).toEqual([{ key: 'spring-letter', at: 50 }])
    expect(columns.beginnings('file', { from: 60, to: 1000 }).map(({ key, at }) => [key, at])).toEqual([
      ['a', 100],
      ['c', 120],
    ])
  })
})
