import { z } from 'zod'

/** The end of an address of one of its files: the beginning of the file's SHA-256. */
export const ownFontFileSchema = z.string().regex(/^[0-9a-f]{32}$/)

/** Parts of the site's own fonts that are served by themselves; a font that may not be taken apart is served whole. */
const OWN_PARTS = ['latin', 'latin-ext', 'other', 'whole'] as const
export type OwnPart = (typeof OWN_PARTS)[number]

/** One font of a typeface, for a range of weights. */
const cutSchema = z.object({
  least: z.number().min(1).max(1000),
  most: z.number().min(1).max(1000),
  parts: z
    .array(z.object({ part: z.enum(OWN_PARTS), file: ownFontFileSchema }))
    .min(1)
    .max(OWN_PARTS.length),
})
export type OwnCut = z.infer<typeof cutSchema>

export type OwnTypefaceId = `own-${string}`
const ID = /^own-[0-9a-f]{12}$/
export const ownTypefaceIdSchema = z.custom<OwnTypefaceId>(
  value => typeof value === 'string' && ID.test(value),
  'Choose a typeface that is there.',
)

/** A font for regular and one for bold words, or one for all weights. */
export const MOST_CUTS = 2
const percent = z.number().min(10).max(400)

/** A typeface that came from the owner's library, as it is served. */
export const ownTypefaceSchema = z.object({
  id: ownTypefaceIdSchema,
  /** as its maker calls it */
  name: z.string().trim().min(1).max(80),
  generic: z.enum(['serif', 'sans-serif']),
  /** how a font that every computer has is drawn to take its room, in percent (CSS Fonts 5) */
  fallback: z.object({ sizeAdjust: percent, ascent: percent, descent: z.number().min(0).max(400) }),
  cuts: z.array(cutSchema).min(1).max(MOST_CUTS),
})
export type OwnTypeface = z.infer<typeof ownTypefaceSchema>

/** A site has few. */
export const MOST_OWN = 6

/** What is served for some typefaces: the names of files. */
export const filesOfOwn = (own: OwnTypeface[]): string[] =>
  own.flatMap(({ cuts }) => cuts.flatMap(({ parts }) => parts.map(({ file }) => file)))

export const ownFontHref = (file: string): string => `/_typefaces/${file}.woff2`
