import { z } from 'zod'

export const daySchema = z.iso.date('Give a day, such as 2026-12-01.')
/** Whether a text is a day (ISO 8601) that calendars have. */
export const isDay = (text: string): boolean => daySchema.safeParse(text).success

/** A set time as it is asked for: a day and a time of that day, by the site's clock. */
export const setTimeSchema = z.object({
  day: daySchema,
  time: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time, such as 08:00.'),
})
