import { z } from 'zod'
import { DEFAULT_DARK, DEFAULT_PALETTE, paletteSchema } from './palette'
import { DEFAULT_TYPE, typeChoiceSchema } from './typefaces'

/** How much larger headings are than text. */
export const SCALES = ['compact', 'even', 'grand'] as const
/** Corners of pictures and cards. */
export const CORNERS = ['square', 'soft', 'round'] as const
/** Where the site's name and its menu stand: side by side, one below the other in the middle, or on a band of their own. */
export const HEADS = ['beside', 'centred', 'band'] as const
/** Room between the parts of a page. */
export const RHYTHMS = ['tight', 'even', 'airy'] as const

/** What the pages and looks of a site are fed from: its colours, its type, its room. */
export const siteStyleSchema = z.object({
  palette: paletteSchema,
  /** colours for readers whose screen is dark; null where those are the same */
  dark: paletteSchema.nullable().default(null),
  type: typeChoiceSchema,
  scale: z.enum(SCALES).default('even'),
  corners: z.enum(CORNERS).default('soft'),
  head: z.enum(HEADS).default('beside'),
  rhythm: z.enum(RHYTHMS).default('even'),
})
export type SiteStyle = z.infer<typeof siteStyleSchema>

export const DEFAULT_STYLE: SiteStyle = {
  palette: DEFAULT_PALETTE,
  dark: DEFAULT_DARK,
  type: DEFAULT_TYPE,
  scale: 'even',
  corners: 'soft',
  head: 'beside',
  rhythm: 'even',
}
