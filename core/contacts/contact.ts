import { z } from 'zod'

/** Somebody who left an e-mail address, as the desk's API lists them. */
export const contactItemSchema = z.object({
  id: z.string(),
  email: z.string(),
  /** ISO 8601 */
  created: z.string(),
  confirmed: z.string().nullable(),
  unsubscribed: z.string().nullable(),
  /** the gate they came to last, as it was called then; empty where they came by none */
  last: z.string(),
  lastAt: z.string().nullable(),
  /** downloads they were let through for */
  taken: z.number(),
})
export type ContactItem = z.infer<typeof contactItemSchema>

/** What they wrote and agreed to, each time. */
const admissionSchema = z.object({
  at: z.string(),
  gateName: z.string(),
  answers: z.array(z.object({ label: z.string(), value: z.string() })),
  consent: z.string(),
  terms: z
    .object({
      text: z.string(),
      file: z.object({ id: z.string(), title: z.string(), edition: z.number(), sha256: z.string() }).optional(),
    })
    .optional(),
})
export const contactSchema = contactItemSchema.extend({
  admissions: z.array(admissionSchema),
  takes: z.array(z.object({ at: z.string(), fileId: z.string(), title: z.string().nullable() })),
})
export type Contact = z.infer<typeof contactSchema>

export const contactQuerySchema = z.object({
  /** a piece of the address or of what they wrote */
  q: z.string().trim().max(200, 'Look for at most 200 characters.').default(''),
  gate: z.string().max(40).optional(),
  confirmed: z.enum(['yes', 'no']).optional(),
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})
export type ContactQuery = z.infer<typeof contactQuerySchema>

/** How long contacts are kept of whom nothing more was heard. */
export const contactRulesSchema = z.object({
  /** days; null for ever */
  keepDays: z.number().int().min(1).max(3650).nullable().default(null),
})
export type ContactRules = z.infer<typeof contactRulesSchema>
