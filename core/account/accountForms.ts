import { z } from 'zod'
import { rightsSchema } from '../rights/rights'

/** Fewest characters of a password (NIST SP 800-63B, section 3.1.1.2: length matters, rules of composition do not). */
export const SHORTEST_PASSWORD = 10

export const passwordSchema = z
  .string()
  .min(SHORTEST_PASSWORD, `Use at least ${SHORTEST_PASSWORD} characters.`)
  .max(1000, 'Keep the password to 1,000 characters.')
export const emailSchema = z.email('Give an e-mail address, such as me@example.com.').max(254).toLowerCase()
const codeSchema = z.string().trim().max(40)

export const signInSchema = z.object({
  email: z.string().trim().toLowerCase().max(254),
  password: z.string().max(1000),
  /** of the second factor, or a recovery code; asked for where the account has one */
  code: codeSchema.optional(),
})
export type SignIn = z.infer<typeof signInSchema>

export const setUpSchema = z.object({
  code: codeSchema,
  email: emailSchema,
  password: passwordSchema,
  siteName: z.string().trim().min(1, 'Give the site a name.').max(120),
})
export type SetUp = z.infer<typeof setUpSchema>

export const changePasswordSchema = z.object({ old: z.string().max(1000), password: passwordSchema })
export const resetPasswordSchema = z.object({
  password: passwordSchema,
  /** also ends the second factor */ endSecondFactor: z.boolean().default(false),
})
export const confirmPasswordSchema = z.object({ password: z.string().max(1000) })
export const secondFactorSchema = z.object({
  secret: z.string().regex(/^[A-Z2-7]{16,64}$/, 'Begin again: the secret is not whole.'),
  code: codeSchema,
  password: z.string().max(1000),
})

export const accountSchema = z.object({
  id: z.string(),
  email: z.string(),
  /** what others call them; empty where nobody said */
  name: z.string(),
  /** one-time codes are asked for */
  secondFactor: z.boolean(),
  /** null for an owner, who may do everything */
  rights: rightsSchema.nullable(),
})
export type Account = z.infer<typeof accountSchema>

/** A place where somebody is signed in. */
export const sessionItemSchema = z.object({
  id: z.string(),
  /** "Firefox on Linux" */
  device: z.string(),
  /** address it was used from last */
  place: z.string(),
  /** ISO 8601 */
  created: z.string(),
  used: z.string(),
  /** the one that asks */
  own: z.boolean(),
})
export type SessionItem = z.infer<typeof sessionItemSchema>
