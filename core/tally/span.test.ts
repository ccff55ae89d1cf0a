import { describe, expect, it } from 'vitest'
import { barsOf, spanFound as found, type SpanAsked } from './span'

const NOW = Date.parse('2026-11-27T15:30:00Z')
const asked = (given: Partial<SpanAsked>): SpanAsked => ({ span: '30', against: 'before', ...given })
const spanFound = (given: SpanAsked, now: number, zone: string, first?: number) => {
  const span = found(given, now, zone, first)
  return { ...span, bars: barsOf(span, zone) }
}
const iso = (at: number) => new Date(at * 1000).toISOString()

describe('a span of downloads', () => {
  it('ends with today, and is held against as many days before it', () => {
    const { from, to, before, unit, bars } = spanFound(asked({}), NOW, 'UTC')
    expect([from, to].map(iso)).toEqual(['2026-10-29T00:00:00.000Z', '2026-11-28T00:00:00.000Z'])
    expect([before!.from, before!.to].map(iso)).toEqual(['2026-09-29T00:00:00.000Z', '2026-10-29T00:00:00.000Z'])
    expect([unit, bars.length]).toEqual(['day', 30])
  })
  it('is held against the same days a year ago, or nothing', () => {
    const ago = spanFound(asked({ against: 'year', span: '7' }), NOW, 'UTC').before!
    expect([ago.from, ago.to].map(iso)).toEqual(['2025-11-21T00:00:00.000Z', '2025-11-28T00:00:00.000Z'])
    expect(spanFound(asked({ against: 'none' }), NOW, 'UTC').before).toBeNull()
    expect(spanFound(asked({ span: 'all' }), NOW, 'UTC').before).toBeNull()
  })

  // The IANA time zone database: Europe/Berlin put clocks on at 01:00 UTC on 2026-03-29 and back at 01:00 UTC on 2026-10-25.
  it.each([
    ['2026-03-29', 23, '2026-03-28T23:00:00.000Z', '2026-03-29T22:00:00.000Z'],
    ['2026-10-25', 25, '2026-10-24T22:00:00.000Z', '2026-10-25T23:00:00.000Z'],
    ['2026-11-01', 24, '2026-10-31T23:00:00.000Z', '2026-11-01T23:00:00.000Z'],
  ])('has as many hours as the day has: %s, %i', (day, hours, from, to) => {
    const whole = spanFound(asked({ span: 'days', from: day, to: day, unit: 'hour' }), NOW, 'Europe/Berlin')
    expect([whole.from, whole.to].map(iso)).toEqual([from, to])
    expect(whole.bars).toHaveLength(hours)
    expect(new Set(whole.bars.map((at, index) => (whole.bars[index + 1] ?? whole.to) - at))).toEqual(new Set([3600]))
  })
  it('has hours that begin where clocks are half an hour off', () => {
    const { bars } = spanFound(asked({ span: 'today' }), NOW, 'Asia/Kolkata')
    expect(iso(bars[0]!)).toBe('2026-11-26T18:30:00.000Z')
    expect(bars).toHaveLength(24)
  })

  it('has weeks that begin on Monday (ISO 8601), the first cut where the span begins', () => {
    const { bars } = spanFound(asked({ span: 'days', from: '2026-11-05', to: '2026-11-27', unit: 'week' }), NOW, 'UTC')
    expect(bars.map(iso).map(day => day.slice(0, 10))).toEqual(['2026-11-05', '2026-11-09', '2026-11-16', '2026-11-23'])
  })
  it('has months as long as they are', () => {
    const { bars, unit } = spanFound(asked({ span: 'year', unit: 'month' }), NOW, 'UTC')
    expect(unit).toBe('month')
    expect(bars.map(iso).map(day => day.slice(0, 7))).toEqual(
      Array.from({ length: 11 }, (_, month) => `2026-${String(month + 1).padStart(2, '0')}`),
    )
  })
  it('takes all from the first download on', () => {
    expect(spanFound(asked({ span: 'all' }), NOW, 'UTC', Date.parse('2024-12-03T10:00:00Z'))).toMatchObject({
      firstDay: '2024-12-03',
      unit: 'month',
    })
    // A clock that was set back.
    expect(spanFound(asked({ span: 'all' }), NOW, 'UTC', NOW + 1e10).firstDay).toBe('2026-11-27')
  })
  it('takes two days in whichever order, and none that there is not', () => {
    expect(spanFound(asked({ span: 'days', from: '2026-11-20', to: '2026-11-10' }), NOW, 'UTC').firstDay).toBe('2026-11-10')
    expect(() => spanFound(asked({ span: 'days', from: '2026-02-30' }), NOW, 'UTC')).toThrow(RangeError)
  })
  it('is not cut into more bars than can be seen', () => {
    const long = spanFound(asked({ span: 'days', from: '1990-01-01', to: '2026-01-01', unit: 'hour' }), NOW, 'UTC')
    expect(long.unit).toBe('month')
    expect(long.bars).toHaveLength(36 * 12 + 1)
  })
})
