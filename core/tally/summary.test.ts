import { describe, expect, it } from 'vitest'
import { lastPeriod, summaryFormSchema, summaryLines } from './summary'

describe('the last period', () => {
  // ISO 8601: 2026-11-30 is a Monday; days of the week by `cal 11 2026`.
  it.each<['week' | 'month', string, string, string, string]>([
    ['week', '2026-11-30T07:00:00Z', 'UTC', '2026-11-23', '2026-11-29'],
    // Before seven it is still that of before.
    ['week', '2026-11-30T06:59:00Z', 'UTC', '2026-11-16', '2026-11-22'],
    ['week', '2026-12-06T12:00:00Z', 'UTC', '2026-11-23', '2026-11-29'],
    // The same moment is Monday noon in one place, and Sunday in another.
    ['week', '2026-11-30T00:00:00Z', 'Asia/Tokyo', '2026-11-23', '2026-11-29'],
    ['week', '2026-11-30T00:00:00Z', 'America/New_York', '2026-11-16', '2026-11-22'],
    ['month', '2026-12-01T07:00:00Z', 'UTC', '2026-11-01', '2026-11-30'],
    ['month', '2024-03-15T07:00:00Z', 'UTC', '2024-02-01', '2024-02-29'],
    ['month', '2027-01-31T07:00:00Z', 'UTC', '2026-12-01', '2026-12-31'],
  ])('of a %s at %s in %s', (every, now, zone, firstDay, lastDay) =>
    expect(lastPeriod(every, Date.parse(now), zone)).toEqual({ firstDay, lastDay }),
  )
})

it('says what was taken, what rose and fell, and what did not work; nothing of what there is none of', () => {
  const nothing = { total: 0, before: 3, files: [], broken: [], missing: [], unfound: [] }
  expect(summaryLines(nothing)).toEqual(['0 downloads, 3 in the time before.'])
  const lines = summaryLines({
    total: 1204,
    before: 900,
    files: [
      { title: 'Price list', count: 1000, before: 700 },
      { title: 'Guide', count: 104, before: 100 },
      { title: 'Old list', count: 0, before: 60 },
    ],
    broken: [{ title: 'Kiln manual', count: 1 }],
    missing: [
      { address: '/old.pdf', count: 12 },
      { address: '', count: 40 },
    ],
    unfound: [{ words: 'raku', count: 2 }],
  })
  expect(lines).toEqual([
    '1,204 downloads, 900 in the time before.',
    'Most taken: “Price list” 1,000, “Guide” 104.',
    'More than before: “Price list” 1,000 (700 before).',
    'Less than before: “Old list” 0 (60 before).',
    'Broke off on the way: “Kiln manual” once.',
    'Asked for where nothing is: /old.pdf 12 times.',
    'Looked for and not found: “raku” 2 times.',
  ])
})

it('is off at first, and cannot be on without somebody it goes to', () => {
  expect(summaryFormSchema.parse({})).toEqual({ every: 'never', to: '' })
  expect(summaryFormSchema.safeParse({ every: 'week' }).error?.issues[0]?.path).toEqual(['to'])
})
