import { z } from 'zod'
import { appearanceSchema, type Appearance } from './appearance'

export const lookIdSchema = z.string().regex(/^[a-z0-9]{3,40}$/)

export const lookNameSchema = z.string().trim().min(1, 'Give the look a name.').max(60, 'Keep the name of a look to 60 characters.')

export const newLookSchema = z.object({ name: lookNameSchema, appearance: appearanceSchema })
export type NewLook = z.infer<typeof newLookSchema>

/** A saved appearance: whatever uses it follows it. */
export interface Look {
  id: string
  name: string
  appearance: Appearance
  /** comes with Trough: always there, and changed only by a copy */
  builtIn: boolean
}

/** A button that wears a look. */
export interface LookUse {
  look: string
  pageId: string
  pageTitle: string
  placement: string
  label: string
  /** the heading it stands under; empty above the first one */
  section: string
  draft: boolean
  live: boolean
}
