import { z } from 'zod'

const emailSchema = z.email('Give an e-mail address, such as me@example.com.').max(254).toLowerCase()
const nameSchema = z.string().trim().max(120, 'Keep the name to 120 characters.')
const ids = z.array(z.string().max(40)).max(1000)

/** Somebody who gets through gates by name, as the desk's API gives them. */
export const guestItemSchema = z.object({
  id: z.string(),
  email: z.string(),
  /** empty where nobody said */
  name: z.string(),
  /** identities of the groups they are in */
  groups: z.array(z.string()),
  /** they have chosen a password of their own */
  password: z.boolean(),
  /** ISO 8601 */
  created: z.string(),
  /** when they came in last; null where they never did */
  came: z.string().nullable(),
})
export type GuestItem = z.infer<typeof guestItemSchema>

/** A named set of guests. */
export const groupItemSchema = z.object({
  id: z.string(),
  name: z.string(),
  members: z.number(),
})
export type GroupItem = z.infer<typeof groupItemSchema>

/** Guests that are put in together; who is there already is put into the groups, too. */
export const newGuestsSchema = z.object({
  guests: z
    .array(z.object({ email: emailSchema, name: nameSchema.default('') }))
    .min(1, 'Write an address first.')
    .max(10_000, 'Put in at most 10,000 at a time.'),
  groups: ids.default([]),
})
export type NewGuests = z.infer<typeof newGuestsSchema>

export const guestChangeSchema = z
  .object({
    name: nameSchema,
    groups: ids,
    /** false: their password is forgotten, and they come by a link again */
    password: z.literal(false),
  })
  .partial()
export type GuestChange = z.infer<typeof guestChangeSchema>

export const groupSchema = z.object({ name: nameSchema.min(1, 'Give the group a name.') })

export const guestQuerySchema = z.object({
  /** a piece of the address or name */
  q: z.string().trim().max(200, 'Look for at most 200 characters.').default(''),
  group: z.string().max(40).optional(),
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})
export type GuestQuery = z.infer<typeof guestQuerySchema>
