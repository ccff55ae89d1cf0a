import { z } from 'zod'
import { wallTimeSchema } from './setTime'

/** What happens by itself: an edition goes live, a signpost is turned, an entry goes live or leaves. */
export const timedActSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('edition'), file: z.string().max(40), number: z.number().int().min(1) }),
  z.object({ kind: z.literal('signpost'), signpost: z.string().max(40), file: z.string().max(40) }),
  z.object({ kind: z.literal('entry'), entry: z.string().max(40), to: z.enum(['live', 'off']) }),
])
export type TimedAct = z.infer<typeof timedActSchema>

/** One act that is set to happen. */
export const timedItemSchema = z.object({
  id: z.string(),
  act: timedActSchema,
  /** ISO 8601 */
  at: z.string(),
  /** why it did not happen when its time had come; null while it is to come */
  failed: z.string().nullable(),
})
export type TimedItem = z.infer<typeof timedItemSchema>

export const newTimedSchema = z.object({ act: timedActSchema, /** as clocks show it in the site's time zone */ at: wallTimeSchema })
