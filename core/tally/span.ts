import { Temporal } from 'temporal-polyfill'
import type { Stretch } from './columns'
import type { Ahead } from './week'

export const SPANS = ['today', '7', '30', '90', 'year', 'all', 'days'] as const
export type Span = (typeof SPANS)[number]
export const UNITS = ['hour', 'day', 'week', 'month'] as const
export type Unit = (typeof UNITS)[number]
/** What a span is held against. */
export const AGAINST = ['before', 'year', 'none'] as const
export type Against = (typeof AGAINST)[number]

/** More bars than this say nothing to anybody. */
export const MOST_BARS = 750

export interface SpanAsked {
  span: Span
  /** days (ISO 8601), the last one included; for the span `days` */
  from?: string
  to?: string
  against: Against
  unit?: Unit
}

/** A span as it is in a time zone: moments in seconds since 1970. */
export interface SpanFound extends Stretch {
  before: Stretch | null
  unit: Unit
  /** units it can be shown by */
  units: Unit[]
  /** the days, ISO 8601; the last one is inside */
  firstDay: string
  lastDay: string
}

/** The day in a time zone on which a moment falls (ISO 8601); @param moment milliseconds since 1970 */
export const dayAt = (moment: number, zone: string): string =>
  Temporal.Instant.fromEpochMilliseconds(moment).toZonedDateTimeISO(zone).toPlainDate().toString()

const seconds = (time: Temporal.ZonedDateTime) => time.epochMilliseconds / 1000
const dayStart = (day: Temporal.PlainDate, zone: string) => seconds(day.toZonedDateTime(zone))

/** The first and the last day of a span; the last one is inside. */
function daysOf(
  { span, from, to }: SpanAsked,
  today: Temporal.PlainDate,
  first: Temporal.PlainDate,
): [Temporal.PlainDate, Temporal.PlainDate] {
  if (span === 'today') return [today, today]
  if (span === 'year') return [today.with({ month: 1, day: 1 }), today]
  if (span === 'all') return [Temporal.PlainDate.compare(first, today) > 0 ? today : first, today]
  if (span !== 'days') return [today.subtract({ days: Number(span) - 1 }), today]
  const [one, other] = [Temporal.PlainDate.from(from ?? today.toString()), Temporal.PlainDate.from(to ?? today.toString())]
  return Temporal.PlainDate.compare(one, other) > 0 ? [other, one] : [one, other]
}

/** The moment at which the bar begins in which a moment falls; weeks begin on Monday (ISO 8601). */
function barStart(time: Temporal.ZonedDateTime, unit: Unit): Temporal.ZonedDateTime {
  if (unit === 'hour') return time.round({ smallestUnit: 'hour', roundingMode: 'floor' })
  const day = time.startOfDay()
  if (unit === 'week') return day.subtract({ days: day.dayOfWeek - 1 }).startOfDay()
  return unit === 'month' ? day.with({ day: 1 }).startOfDay() : day
}

/** Where each bar of a span begins; days of 23 and 25 hours are what they are. */
export function barsOf({ firstDay, lastDay, unit }: Pick<SpanFound, 'firstDay' | 'lastDay' | 'unit'>, zone: string): number[] {
  const from = Temporal.PlainDate.from(firstDay).toZonedDateTime(zone)
  const to = Temporal.PlainDate.from(lastDay).add({ days: 1 }).toZonedDateTime(zone)
  const bars = [seconds(from)]
  for (let at = barStart(from, unit); ;) {
    at = at.add({ [`${unit}s`]: 1 })
    if (unit !== 'hour') at = at.startOfDay()
    if (Temporal.ZonedDateTime.compare(at, to) >= 0 || bars.length > MOST_BARS) return bars
    bars.push(seconds(at))
  }
}

/** What each unit must have a few of, and not too many. */
const FITS: Record<Unit, (days: number) => boolean> = {
  hour: days => days <= 14,
  day: days => days > 1 && days <= 400,
  week: days => days >= 14,
  month: days => days >= 59,
}
const usual = (days: number): Unit => (days <= 2 ? 'hour' : days <= 100 ? 'day' : days <= 370 ? 'week' : 'month')

/**
 * A span in the site's time zone.
 *
 * @param first the moment of the first download there is, in milliseconds since 1970
 * @throws RangeError where a day is none
 */
export function spanFound(asked: SpanAsked, now: number, zone: string, first = now): SpanFound {
  const dayAt = (moment: number) => Temporal.Instant.fromEpochMilliseconds(moment).toZonedDateTimeISO(zone).toPlainDate()
  const [firstDay, lastDay] = daysOf(asked, dayAt(now), dayAt(first))
  const days = firstDay.until(lastDay, { largestUnit: 'day' }).days + 1
  const after = lastDay.add({ days: 1 })
  const shifted = (by: Temporal.DurationLike): Stretch => ({
    from: dayStart(firstDay.subtract(by), zone),
    to: dayStart(after.subtract(by), zone),
  })
  const units = UNITS.filter(unit => FITS[unit](days))
  const unit = asked.unit && units.includes(asked.unit) ? asked.unit : usual(days)
  return {
    ...shifted({ days: 0 }),
    before: asked.against === 'none' || asked.span === 'all' ? null : shifted(asked.against === 'year' ? { years: 1 } : { days }),
    unit,
    units: units.length ? units : [unit],
    firstDay: firstDay.toString(),
    lastDay: lastDay.toString(),
  }
}

/** How far a time zone is ahead through a stretch of time, changes of clocks included. */
export function aheadIn({ from, to }: Stretch, zone: string): Ahead[] {
  let at = Temporal.Instant.fromEpochMilliseconds(from * 1000).toZonedDateTimeISO(zone)
  const found = [{ from, seconds: at.offsetNanoseconds / 1e9 }]
  for (;;) {
    const next = at.getTimeZoneTransition('next')
    if (!next || next.epochMilliseconds >= to * 1000) return found
    found.push({ from: next.epochMilliseconds / 1000, seconds: next.offsetNanoseconds / 1e9 })
    at = next
  }
}
