import { z } from 'zod'

/** The name of a time zone in the IANA database. */
export const timeZoneSchema = z.string().max(60).refine(isTimeZone, 'Give a time zone by its place, such as Europe/London.')

function isTimeZone(name: string): boolean {
  try {
    // Offsets such as +01:00 know no summer time, and are no place.
    return /^[A-Z]/i.test(name) && !!new Intl.DateTimeFormat('en', { timeZone: name })
  } catch {
    return false
  }
}
