import { Temporal } from 'temporal-polyfill'
import { Problem } from '../problem'

function wallOf(text: string): Temporal.PlainDateTime {
  try {
    return Temporal.PlainDateTime.from(text)
  } catch {
    throw new Problem(422, 'There is no such day or time.', 'Give a day and a time, such as 2026-12-01T08:00.', { field: 'at' })
  }
}

/**
 * The moment at which clocks in a time zone show a time. Where they show it twice, as summer time ends, the first.
 *
 * @param zone of the IANA database
 * @throws Problem 422 where clocks leave that time out, as summer time begins, naming the one they show instead
 */
export function momentOf(text: string, zone: string): Date {
  const wall = wallOf(text)
  const moment = wall.toZonedDateTime(zone, { disambiguation: 'compatible' })
  const shown = moment.toPlainDateTime()
  if (!shown.equals(wall))
    throw new Problem(
      422,
      `There is no ${wall.toPlainTime().toString({ smallestUnit: 'minute' })} on that day.`,
      `Clocks are put on then: choose ${shown.toPlainTime().toString({ smallestUnit: 'minute' })}.`,
      { field: 'at' },
    )
  return new Date(moment.epochMilliseconds)
}

/** What clocks in a time zone show at a moment, as `momentOf` takes it. */
export const wallTimeAt = (moment: Date, zone: string): string =>
  Temporal.Instant.fromEpochMilliseconds(moment.getTime()).toZonedDateTimeISO(zone).toPlainDateTime().toString({ smallestUnit: 'minute' })

/** When the day began in which a moment falls, where the site is: days of 23 and 25 hours too. */
export const startOfDay = (moment: number, zone: string): Date =>
  new Date(Temporal.Instant.fromEpochMilliseconds(moment).toZonedDateTimeISO(zone).startOfDay().epochMilliseconds)
