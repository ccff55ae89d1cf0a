import { describe, expect, it } from 'vitest'
import { aheadIn } from './span'
import { hourOfWeek, HOURS_OF_WEEK, weekTable } from './week'

const at = (time: string) => Date.parse(time) / 1000

describe('how far a place is ahead', () => {
  it('changes when its clocks do (IANA time zone database)', () => {
    expect(aheadIn({ from: at('2026-01-01T00:00:00Z'), to: at('2026-12-31T00:00:00Z') }, 'Europe/London')).toEqual([
      { from: at('2026-01-01T00:00:00Z'), seconds: 0 },
      { from: at('2026-03-29T01:00:00Z'), seconds: 3600 },
      { from: at('2026-10-25T01:00:00Z'), seconds: 0 },
    ])
    expect(aheadIn({ from: 0, to: at('2026-01-01T00:00:00Z') }, 'UTC')).toEqual([{ from: 0, seconds: 0 }])
  })
})

it('tells the hour of a week as Intl does', () => {
  const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
  for (const zone of ['Asia/Kathmandu', 'America/St_Johns', 'Pacific/Kiritimati', 'UTC'])
    for (let moment = at('2026-10-20T00:10:00Z'); moment < at('2026-11-03T00:00:00Z'); moment += 1777) {
      const seconds = aheadIn({ from: at('2026-10-01T00:00:00Z'), to: moment + 1 }, zone).at(-1)!.seconds
      const parts = new Intl.DateTimeFormat('en-US', { timeZone: zone, weekday: 'short', hour: 'numeric', hourCycle: 'h23' })
        .formatToParts(moment * 1000)
        .reduce<Record<string, string>>((found, { type, value }) => ({ ...found, [type]: value }), {})
      expect(hourOfWeek(moment, seconds)).toBe(DAYS.indexOf(parts.weekday!) * 24 + Number(parts.hour))
    }
})

it('puts hours together by day', () => {
  const week = Array.from({ length: HOURS_OF_WEEK }, (_, hour) => hour)
  const table = weekTable(week)
  expect([table.length, table[0]!.length, table[0]![0], table[6]![7]]).toEqual([7, 8, 0 + 1 + 2, 165 + 166 + 167])
})
