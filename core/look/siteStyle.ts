import { z } from 'zod'
import { DEFAULT_PALETTE, paletteSchema } from './palette'
import { DEFAULT_TYPE, typeChoiceSchema } from './typefaces'

/** What the looks of a site are fed from: its colours and type. */
export const siteStyleSchema = z.object({ palette: paletteSchema, type: typeChoiceSchema })
export type SiteStyle = z.infer<typeof siteStyleSchema>

export const DEFAULT_STYLE: SiteStyle = { palette: DEFAULT_PALETTE, type: DEFAULT_TYPE }
