import { z } from 'zod'
import { DEFAULT_DARK, DEFAULT_PALETTE, paletteSchema } from './palette'
import { MOST_OWN, ownTypefaceSchema } from './ownTypeface'
import { DEFAULT_TYPE, typeChoiceSchema } from './typefaces'

/** How much larger headings are than text. */
export const SCALES = ['compact', 'even', 'grand'] as const
/** Corners of pictures and cards. */
export const CORNERS = ['square', 'soft', 'round'] as const
/**
 * Where the site's name and its menu stand: side by side, one below the other in the middle, on a band of their own, or side by side over
 * the picture that a page begins with.
 */
export const HEADS = ['beside', 'centred', 'band', 'over'] as const
/** How the lines of a shelf are told apart: by rules, each in a box, or by bands of colour. */
export const SHELF_LINES = ['ruled', 'boxed', 'banded'] as const
/** Which links have their address written behind them on paper, where nobody can press them. */
export const PAPER_ADDRESSES = ['none', 'outside', 'all'] as const
/** Room between the parts of a page. */
export const RHYTHMS = ['tight', 'even', 'airy'] as const

const paperSchema = z.object({
  addresses: z.enum(PAPER_ADDRESSES),
  /** pages end with a picture that phones read their address from */
  code: z.boolean(),
})
export type Paper = z.infer<typeof paperSchema>
const DEFAULT_PAPER: Paper = { addresses: 'outside', code: false }

/** What the pages and looks of a site are fed from: its colours, its type, its room. */
export const siteStyleSchema = z.object({
  palette: paletteSchema,
  /** colours for readers whose screen is dark; null where those are the same */
  dark: paletteSchema.nullable().default(null),
  type: typeChoiceSchema,
  /** typefaces of the owner's own that can be chosen, in use or not */
  own: z.array(ownTypefaceSchema).max(MOST_OWN, `A site has at most ${MOST_OWN} typefaces of its own.`).default([]),
  scale: z.enum(SCALES).default('even'),
  corners: z.enum(CORNERS).default('soft'),
  head: z.enum(HEADS).default('beside'),
  rhythm: z.enum(RHYTHMS).default('even'),
  shelves: z.enum(SHELF_LINES).default('ruled'),
  paper: paperSchema.default(DEFAULT_PAPER),
})
export type SiteStyle = z.infer<typeof siteStyleSchema>
/** All of it that a finished style decides; what is printed, and what typefaces one has, is the owner's own in each. */
export type Fashion = Omit<SiteStyle, 'paper' | 'own'>

export const DEFAULT_FASHION: Fashion = {
  palette: DEFAULT_PALETTE,
  dark: DEFAULT_DARK,
  type: DEFAULT_TYPE,
  scale: 'even',
  corners: 'soft',
  head: 'beside',
  rhythm: 'even',
  shelves: 'ruled',
}
export const DEFAULT_STYLE: SiteStyle = { ...DEFAULT_FASHION, own: [], paper: DEFAULT_PAPER }
