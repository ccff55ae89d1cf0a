import { z } from 'zod'

export const daySchema = z.iso.date('Give a day, such as 2026-12-01.')
/** Whether a text is a day (ISO 8601) that calendars have. */
export const isDay = (text: string): boolean => daySchema.safeParse(text).success

/** A set time as it is asked for: a day and a time of that day, by the site's clock. */
export const setTimeSchema = z.object({
  day: daySchema,
  time: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time, such as 08:00.'),
})

/** A time of day on a clock on the wall, without saying where: `2026-12-01T08:00` (ISO 8601). */
export const wallTimeSchema = z.string().regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, 'Give a day and a time, such as 2026-12-01T08:00.')
