import { z } from 'zod'

/** A line of the journal. */
export const journalItemSchema = z.object({
  id: z.number(),
  /** ISO 8601 */ at: z.string(),
  who: z.string(),
  words: z.string(),
  about: z.string(),
  /** where on the desk that is; null where it is gone, or has no place */ leadsTo: z.string().nullable(),
  place: z.string(),
})
export type JournalItem = z.infer<typeof journalItemSchema>
