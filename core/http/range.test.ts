import { describe, expect, it } from 'vitest'
import { parseRange } from './range'

describe('parseRange, examples of RFC 9110, section 14.1.2, for 10000 bytes', () => {
  it.each([
    ['bytes=0-499', [[0, 500]]],
    ['bytes=500-999', [[500, 1000]]],
    ['bytes=-500', [[9500, 10000]]],
    ['bytes=9500-', [[9500, 10000]]],
    [
      'bytes=0-0,-1',
      [
        [0, 1],
        [9999, 10000],
      ],
    ],
    [
      'bytes= 0-999, 4500-5499, -1000',
      [
        [0, 1000],
        [4500, 5500],
        [9000, 10000],
      ],
    ],
    [
      'bytes=500-600,601-999',
      [
        [500, 601],
        [601, 1000],
      ],
    ],
    ['bytes=500-700,601-999', [[500, 1000]]],
  ])('%s', (header, ranges) => {
    expect(parseRange(header, 10_000)).toEqual(ranges.map(([start, end]) => ({ start, end })))
  })
})

describe('parseRange', () => {
  it('cuts what goes beyond the end, and takes a suffix longer than everything as everything', () => {
    expect(parseRange('bytes=9000-99999', 10_000)).toEqual([{ start: 9000, end: 10_000 }])
    expect(parseRange('bytes=-99999', 10_000)).toEqual([{ start: 0, end: 10_000 }])
    expect(parseRange('bytes=0-99999999999999999999999', 10)).toEqual([{ start: 0, end: 10 }])
  })

  it.each(['bytes=10000-', 'bytes=-0', 'bytes=10000-10001,20000-'])('%s cannot be satisfied', header => {
    expect(parseRange(header, 10_000)).toBe('unsatisfiable')
  })

  it('has nothing to give of an empty representation', () => {
    expect(parseRange('bytes=0-', 0)).toBe('unsatisfiable')
    expect(parseRange('bytes=-5', 0)).toBe('unsatisfiable')
  })

  it('leaves out the ranges that touch nothing when another does', () => {
    expect(parseRange('bytes=0-1,20000-', 10_000)).toEqual([{ start: 0, end: 2 }])
  })

  it.each(['lines=1-2', 'bytes', 'bytes=', 'bytes=-', 'bytes=a-b', 'bytes=5-3', 'bytes=1-2-3', 'bytes=--5', `bytes=${'0-0,'.repeat(65)}`])(
    'ignores %s',
    header => {
      expect(parseRange(header, 10_000)).toBeUndefined()
    },
  )

  it('joins overlapping ranges in the place of the first, so that no byte is sent twice', () => {
    expect(parseRange('bytes=900-999,0-9,5-19,950-1100', 10_000)).toEqual([
      { start: 900, end: 1101 },
      { start: 0, end: 20 },
    ])
    expect(parseRange('bytes=0-10,20-30,5-25', 10_000)).toEqual([{ start: 0, end: 31 }])
  })
})
