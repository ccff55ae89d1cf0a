import { z } from 'zod'
import { appearanceSchema } from './appearance'

export const lookIdSchema = z.string().regex(/^[a-z0-9]{3,40}$/)

export const lookNameSchema = z.string().trim().min(1, 'Give the look a name.').max(60, 'Keep the name of a look to 60 characters.')

export const newLookSchema = z.object({ name: lookNameSchema, appearance: appearanceSchema })
export type NewLook = z.infer<typeof newLookSchema>

/** A saved appearance: whatever uses it follows it. */
export const lookSchema = z.object({
  id: z.string(),
  name: z.string(),
  appearance: appearanceSchema,
  /** comes with Trough: always there, and changed only by a copy */
  builtIn: z.boolean(),
})
export type Look = z.infer<typeof lookSchema>

/** A button that wears a look. */
export const lookUseSchema = z.object({
  look: z.string(),
  pageId: z.string(),
  pageTitle: z.string(),
  placement: z.string(),
  label: z.string(),
  /** the heading it stands under; empty above the first one */
  section: z.string(),
  draft: z.boolean(),
  live: z.boolean(),
})
export type LookUse = z.infer<typeof lookUseSchema>
