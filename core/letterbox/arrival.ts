import { z } from 'zod'

/** What visitors handed in, as the desk's API gives it. */
export const arrivalSchema = z.object({
  id: z.string(),
  number: z.number(),
  /** ISO 8601 */
  at: z.string(),
  /** the letterbox and its page, as they were called then */
  letterbox: z.string(),
  pageTitle: z.string(),
  /** null where the page is gone */
  pageId: z.string().nullable(),
  name: z.string(),
  email: z.string(),
  words: z.string(),
  /** the file of the library it answers; `id` is null where that is gone, and there is none where nothing was said */
  answers: z.object({ id: z.string().nullable(), title: z.string() }).nullable(),
  files: z.array(
    z.object({
      /** null where it is gone, or is not to be seen by who asks */
      id: z.string().nullable(),
      fileName: z.string(),
      /** bytes */
      size: z.number(),
      /** hexadecimal */
      sha256: z.string(),
    }),
  ),
  /** when somebody had done with it, and who; null while it waits */
  away: z.string().nullable(),
  awayBy: z.string().nullable(),
})
export type Arrival = z.infer<typeof arrivalSchema>

export const arrivalsSchema = z.object({ items: z.array(arrivalSchema), total: z.number() })

export const arrivalQuerySchema = z.object({
  /** a piece of a name, an address, a line of words, a file's name, or the number */
  q: z.string().trim().max(200, 'Look for at most 200 characters.').default(''),
  /** only what nobody has put away yet */
  waiting: z.literal('yes').optional(),
  /** identity of a file that came with it */
  file: z.string().max(40).optional(),
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})
export type ArrivalQuery = z.infer<typeof arrivalQuerySchema>

export const arrivalChangeSchema = z.object({
  /** somebody has done with it */
  away: z.boolean(),
})
