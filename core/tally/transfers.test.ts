import { NO_PARTICULARS } from './particulars'
import { describe, expect, it } from 'vitest'
import { addInterval, coversAll } from './intervals'
import { isRobot } from './robots'
import { Transfers, type Delivery } from './transfers'

const delivery = (stretches: [number, number][], changes: Partial<Delivery> = {}): Delivery => ({
  visitor: () => 'v',
  file: 'f',
  edition: 1,
  placement: 'p',
  size: 100,
  etag: '"e"',
  at: 0,
  delivered: stretches.map(([start, end]) => ({ start, end })),
  ...changes,
})

describe('addInterval', () => {
  it('joins what touches and keeps what does not', () => {
    const all = [
      [50, 60],
      [0, 10],
      [10, 20],
      [55, 70],
      [5, 5],
    ].reduce((sum, [start, end]) => addInterval(sum, { start: start!, end: end! }), [] as { start: number; end: number }[])
    expect(all).toEqual([
      { start: 0, end: 20 },
      { start: 50, end: 70 },
    ])
    expect(coversAll(all, 70)).toBe(false)
    expect(coversAll(addInterval(all, { start: 20, end: 50 }), 70)).toBe(true)
  })
})

describe('Transfers', () => {
  it('counts a whole answer at once', () => {
    expect(new Transfers().add(delivery([[0, 100]]))).toEqual({
      file: 'f',
      edition: 1,
      placement: 'p',
      at: 0,
      bytes: 100,
      course: 'whole',
      took: 0,
      told: NO_PARTICULARS,
    })
  })

  it('joins the ranges of one transfer, in any order and overlapping, into one download', () => {
    const transfers = new Transfers()
    expect(transfers.add(delivery([[60, 100]]))).toBeUndefined()
    expect(transfers.add(delivery([[0, 30]], { placement: undefined }))).toBeUndefined()
    expect(transfers.add(delivery([[20, 60]], { at: 9 }))).toEqual({
      file: 'f',
      edition: 1,
      placement: 'p',
      at: 9,
      bytes: 110,
      course: 'pieces',
      took: 9,
      told: NO_PARTICULARS,
    })
    // The next range begins a new one.
    expect(transfers.add(delivery([[0, 30]]))).toBeUndefined()
  })

  it('does not count what was broken off, nor mix visitors, files or editions', () => {
    const transfers = new Transfers()
    transfers.add(delivery([[0, 99]]))
    for (const other of [{ visitor: () => 'w' }, { file: 'g' }, { edition: 2 }])
      expect(transfers.add(delivery([[99, 100]], other))).toBeUndefined()
    expect(transfers.add(delivery([[99, 100]]))).toBeDefined()
  })

  it('believes a client that goes on from within the stretch it was broken off in, and no other', () => {
    const broken = { unsure: { start: 40, end: 90 } }
    for (const [resumedAt, counted] of [
      [40, true],
      [65, true],
      [90, true],
      [91, false],
    ] as const) {
      const transfers = new Transfers()
      transfers.add(delivery([[0, 40]], broken))
      expect(transfers.add(delivery([[resumedAt, 100]])) !== undefined, String(resumedAt)).toBe(counted)
    }
  })

  it('gives up a transfer that stood still for a day', () => {
    const transfers = new Transfers()
    transfers.add(delivery([[0, 50]]))
    expect(transfers.add(delivery([[50, 100]], { at: 25 * 60 * 60 * 1000 }))).toBeUndefined()
    // What came after is one of its own, and may break off as well.
    expect(transfers.takeBroken()).toEqual([{ file: 'f', have: 50, size: 100, last: 0 }])
    transfers.forget(50 * 60 * 60 * 1000)
    expect(transfers.takeBroken()).toEqual([{ file: 'f', have: 50, size: 100, last: 25 * 60 * 60 * 1000 }])
  })

  it('goes on with what an earlier process had', () => {
    const before = new Transfers()
    before.add(delivery([[0, 60]]))
    const { open, ended } = before.changes()
    expect([open.length, ended]).toEqual([1, []])
    const after = new Transfers(JSON.parse(JSON.stringify(open)) as typeof open)
    expect(after.add(delivery([[60, 100]]))).toMatchObject({ bytes: 100 })
    expect(after.changes()).toEqual({ open: [], ended: [open[0]![0]] })
    expect(after.changes()).toEqual({ open: [], ended: [] })
    expect(after.takeBroken()).toEqual([])
  })

  it('counts an empty file when its answer was sent', () => {
    expect(new Transfers().add(delivery([], { size: 0 }))).toBeDefined()
  })
})

describe('isRobot', () => {
  it('tells robots from browsers; without a name it is a robot', () => {
    expect(isRobot('Mozilla/5.0 (compatible; Examplebot/2.1)')).toBe(true)
    expect(isRobot(undefined)).toBe(true)
    expect(isRobot('Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0')).toBe(false)
    expect(
      isRobot(
        'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.0 Mobile/15E148 Safari/604.1',
      ),
    ).toBe(false)
  })
})
