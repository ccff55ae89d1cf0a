import { execFileSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { timeZoneSchema } from './timeZone'
import { momentOf, wallTimeAt } from './wallTime'

/** What Python's zoneinfo makes of the same IANA database: seconds since the epoch for each wall time, the first where there are two. */
function byPython(zone: string, walls: string[]): number[] {
  const script =
    'import sys, json, datetime, zoneinfo\nzone, *walls = sys.argv[1:]\nprint(json.dumps([datetime.datetime.fromisoformat(w).replace(tzinfo=zoneinfo.ZoneInfo(zone), fold=0).timestamp() for w in walls]))'
  return JSON.parse(execFileSync('python3', ['-c', script, zone, ...walls], { encoding: 'utf8' })) as number[]
}

describe('the moment of a wall time', () => {
  // Around each change of 2026 and 2027, and one zone whose summer time is half an hour (Lord Howe) and one of the south.
  it.each([
    [
      'Europe/London',
      [
        '2027-03-28T00:59',
        '2027-03-28T02:00',
        '2026-10-25T00:59',
        '2026-10-25T01:30',
        '2026-10-25T02:00',
        '2026-12-01T08:00',
        '2027-07-01T08:00',
      ],
    ],
    ['Europe/Berlin', ['2027-03-28T01:59', '2027-03-28T03:00', '2026-10-25T02:30', '2026-10-25T03:00', '2027-01-01T00:00']],
    ['America/New_York', ['2027-03-14T01:59', '2027-03-14T03:00', '2026-11-01T01:30', '2026-11-01T02:00']],
    ['Australia/Lord_Howe', ['2027-04-04T01:45', '2027-04-04T02:00', '2026-10-04T01:59', '2026-10-04T02:30']],
    ['Asia/Kolkata', ['2026-12-01T08:00']],
    ['UTC', ['2026-12-01T08:00', '2028-02-29T12:00']],
  ])('%s, as Python has it from the IANA database', (zone, walls) => {
    expect(walls.map(wall => momentOf(wall, zone).getTime() / 1000)).toEqual(byPython(zone, walls))
    for (const wall of walls) expect(wallTimeAt(momentOf(wall, zone), zone)).toBe(wall)
  })

  // RFC 5545, 3.3.5, example of a time that occurs twice (from memory): the first, in daylight time, 2007-11-04 01:30 in New York.
  it('is the first of two, as RFC 5545 has it', () =>
    expect(momentOf('2007-11-04T01:30', 'America/New_York').toISOString()).toBe('2007-11-04T05:30:00.000Z'))

  it('is none where clocks leave it out: what they show instead is said', () => {
    expect(() => momentOf('2027-03-28T01:30', 'Europe/London')).toThrow(
      'There is no 01:30 on that day. Clocks are put on then: choose 02:30.',
    )
    expect(() => momentOf('2026-10-04T02:15', 'Australia/Lord_Howe')).toThrow('choose 02:45')
  })

  it.each(['2026-02-30T08:00', '2026-13-01T08:00', '2026-12-01T25:00'])('is none for %s', wall =>
    expect(() => momentOf(wall, 'UTC')).toThrow('There is no such day or time.'),
  )
})

it.each([
  ['Europe/London', true],
  ['America/Argentina/Buenos_Aires', true],
  ['UTC', true],
  ['London', false],
  ['+01:00', false],
  ['', false],
  ['Mars/Base', false],
])('%j is a time zone: %s', (zone, is) => expect(timeZoneSchema.safeParse(zone).success).toBe(is))
