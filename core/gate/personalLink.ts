import { z } from 'zod'

/** An address of a file for one person or purpose, as the desk's API gives it. */
export const personalLinkSchema = z.object({
  id: z.string(),
  /** root-relative */
  path: z.string(),
  note: z.string(),
  email: z.string(),
  /** ISO 8601 */
  until: z.string().nullable(),
  most: z.number().nullable(),
  revoked: z.string().nullable(),
  created: z.string(),
  /** downloads that were let through */
  taken: z.number(),
})
export type PersonalLink = z.infer<typeof personalLinkSchema>

export const newPersonalLinkSchema = z
  .object({
    /** whom or what it is for */
    note: z.string().trim().min(1, 'Say whom or what it is for.').max(200, 'Keep it to 200 characters.'),
    email: z.union([z.literal(''), z.email('Give an e-mail address, such as me@example.com.').max(254).toLowerCase()]).default(''),
    until: z.iso.datetime({ offset: true }).nullable().default(null),
    most: z.number().int().min(1, 'Leave it empty, or give a number from 1.').max(1_000_000).nullable().default(null),
    /** Trough sends it; else it is copied */
    send: z.boolean().default(false),
  })
  .refine(({ send, email }) => !send || email !== '', { message: 'Give the address it is sent to.', path: ['email'] })
export type NewPersonalLink = z.infer<typeof newPersonalLinkSchema>
