import { z } from 'zod'
import { languageSchema } from '../language/languages'
import { emailSchema, phoneSchema } from '../page/outsideTargets'

const orEmpty = <Schema extends z.ZodType<string>>(schema: Schema) => z.union([z.literal(''), schema])

/** What an owner says of the shop, for its first pages to be made of. */
export const firstFactsSchema = z.object({
  name: z.string().trim().min(1, 'Give the shop’s name.').max(120, 'Keep the name to 120 characters.'),
  /** what the shop is, in a sentence or two */
  about: z.string().trim().max(600, 'Keep it to 600 characters.'),
  /** a line for each */
  hours: z.string().trim().max(600, 'Keep it to 600 characters.'),
  phone: orEmpty(phoneSchema),
  email: orEmpty(emailSchema),
  language: languageSchema,
  /** identity of the file that stands on them; none where there is none yet */
  file: z.string().max(40).nullable(),
})
export type FirstFacts = z.infer<typeof firstFactsSchema>

/** Pages that were still empty and are now written, by their identities. */
export const firstPagesSchema = z.object({ written: z.array(z.string()), home: z.string() })
export type FirstPagesMade = z.infer<typeof firstPagesSchema>
