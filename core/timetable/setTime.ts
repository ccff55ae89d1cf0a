import { z } from 'zod'

/** A set time as it is asked for: a day and a time of that day, by the site's clock. */
export const setTimeSchema = z.object({
  day: z.iso.date('Give a day, such as 2026-12-01.'),
  time: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time, such as 08:00.'),
})
