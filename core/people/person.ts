import { z } from 'zod'
import { emailSchema, passwordSchema } from '../account/accountForms'
import { rightsSchema } from '../rights/rights'

const nameSchema = z.string().trim().max(120, 'Keep the name to 120 characters.')

/** Somebody who works at the desk, or was asked to. */
export const personItemSchema = z.object({
  id: z.string(),
  email: z.string(),
  /** empty where nobody said */
  name: z.string(),
  /** `invited`: they have not come yet */
  state: z.enum(['owner', 'helper', 'invited']),
  /** null for an owner, who may do everything */
  rights: rightsSchema.nullable(),
  secondFactor: z.boolean(),
  /** ISO 8601: when they came, or were asked */
  created: z.string(),
  /** when they were at the desk last; null where they are signed in nowhere */
  used: z.string().nullable(),
  /** of an invitation: until when it holds */
  until: z.string().nullable(),
})
export type PersonItem = z.infer<typeof personItemSchema>

export const invitationSchema = z.object({ email: emailSchema, name: nameSchema.default(''), rights: rightsSchema.nullable() })
export type Invitation = z.infer<typeof invitationSchema>

export const personChangeSchema = z.object({ name: nameSchema, rights: rightsSchema.nullable() }).partial()
export type PersonChange = z.infer<typeof personChangeSchema>

/** What the link in a message holds: it lets somebody choose a password. */
const tokenSchema = z.string().max(100)
export const entryLookSchema = z.object({ token: tokenSchema })
export const entrySchema = z.object({ token: tokenSchema, password: passwordSchema, name: nameSchema.optional() })
export type Entry = z.infer<typeof entrySchema>
export const lostPasswordSchema = z.object({ email: z.string().trim().toLowerCase().max(254) })

/** Whom such a link lets in, and what for. */
export const entryForSchema = z.object({
  kind: z.enum(['invitation', 'password']),
  email: z.string(),
  name: z.string(),
  site: z.string(),
})
export type EntryFor = z.infer<typeof entryForSchema>
