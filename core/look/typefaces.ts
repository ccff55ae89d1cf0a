import { z } from 'zod'
import { ownTypefaceIdSchema, type OwnCut, type OwnTypeface } from './ownTypeface'

/** How a font that every computer has is drawn to take the room of another, so that nothing jumps when that arrives (CSS Fonts 5). */
export interface Fallback {
  /** the fonts of the reader's computer */
  local: readonly string[]
  /** percent */
  sizeAdjust: number
  ascent: number
  descent: number
}

interface Named {
  name: string
  fallback: Fallback
}

/** A font that comes with Trough. */
export interface PackagedFont extends Named {
  /** the first part of its files' names, and the end of the name of the package it comes in */
  file: string
  /** the size it is drawn for, in points, where that is not the one of running text (OpenType, `opsz`) */
  opticalSize?: number
}
/** One that its owner brought. */
export interface OwnFont extends Named {
  cuts: OwnCut[]
}
export type ServedFont = PackagedFont | OwnFont

export interface Typeface<Font extends ServedFont = ServedFont> {
  title: string
  /** the family in CSS, with what stands in for it until it is there */
  family: string
  /** what is served for it; nothing where every computer has it */
  font?: Font
  /** finer, for headings that are set in another typeface than the text */
  display?: { family: string; font: Font }
}

const GEORGIA = ['Georgia'] as const
const ARIAL = ['Arial', 'ArialMT'] as const

type Measures = [sizeAdjust: number, ascent: number, descent: number]
type Generic = OwnTypeface['generic']
/** What every computer has in the place of such a typeface. */
const localOf = (generic: Generic) => (generic === 'serif' ? GEORGIA : ARIAL)
const familyOf = (name: string, generic: Generic) => `"${name}","${name} stand-in",${generic}`
const served = (name: string, file: string, generic: Generic, [sizeAdjust, ascent, descent]: Measures) => ({
  title: name,
  family: familyOf(name, generic),
  font: { name, file, fallback: { local: localOf(generic), sizeAdjust, ascent, descent } },
})

/** A serif that is drawn otherwise for large sizes. */
function servedInSizes(name: string, file: string, measures: Measures, opticalSize: number, large: Measures) {
  const { family, font } = served(`${name} Display`, file, 'serif', large)
  return { ...served(name, file, 'serif', measures), display: { family, font: { ...font, opticalSize } } }
}

/** Typefaces a site can be set in; how their stand-ins are drawn is held against a library's measures (`typefaces.test`). */
export const TYPEFACES = {
  literata: servedInSizes('Literata', 'literata', [107.67, 109.31, 28.61], 36, [107, 110, 28.79]),
  hanken: served('Hanken Grotesk', 'hanken-grotesk', 'sans-serif', [100.94, 99.07, 30.02]),
  lora: served('Lora', 'lora', 'serif', [104.98, 95.83, 26.1]),
  fraunces: servedInSizes('Fraunces', 'fraunces', [105.2, 92.96, 24.24], 72, [102.96, 94.99, 24.77]),
  bitter: served('Bitter', 'bitter', 'serif', [104.31, 89.64, 25.41]),
  figtree: served('Figtree', 'figtree', 'sans-serif', [100.72, 94.32, 24.82]),
  karla: served('Karla', 'karla', 'sans-serif', [102.4, 89.55, 24.61]),
  nunito: served('Nunito Sans', 'nunito-sans', 'sans-serif', [101.39, 99.71, 34.82]),
  serif: { title: 'The reader’s own serif', family: 'ui-serif,Georgia,serif' },
  sans: { title: 'The reader’s own sans', family: 'system-ui,sans-serif' },
} as const satisfies Record<string, Typeface<PackagedFont>>
export type TypefaceName = keyof typeof TYPEFACES
export const TYPEFACE_NAMES = Object.keys(TYPEFACES) as [TypefaceName, ...TypefaceName[]]

/** A typeface of the site's own; in CSS it is called by its identity, which no other one has. */
export const ownTypeface = ({ id, name, generic, fallback, cuts }: OwnTypeface): Typeface<OwnFont> & { font: OwnFont } => ({
  title: name,
  family: familyOf(id, generic),
  font: { name: id, fallback: { local: localOf(generic), ...fallback }, cuts },
})

const typefaceSchema = z.union([z.enum(TYPEFACE_NAMES), ownTypefaceIdSchema])
export type TypefaceId = z.infer<typeof typefaceSchema>
/** The two type choices of a site. */
export const typeChoiceSchema = z.object({ heading: typefaceSchema, text: typefaceSchema })
export type TypeChoice = z.infer<typeof typeChoiceSchema>

export const DEFAULT_TYPE: TypeChoice = { heading: 'literata', text: 'hanken' }

/** What a site's words are set in, with the typefaces that are its own. */
export interface Lettering {
  type: TypeChoice
  own: OwnTypeface[]
}

/** A typeface by its identity; one that is no longer there is the reader's own. */
export function typefaceOf(id: TypefaceId, own: OwnTypeface[]): Typeface {
  if (id in TYPEFACES) return TYPEFACES[id as TypefaceName]
  const found = own.find(each => each.id === id)
  return found ? ownTypeface(found) : TYPEFACES.sans
}

/** How headings are set: in a cut for large sizes where the text has another typeface, for which it would be too fine. */
const headingOf = ({ type: { heading, text }, own }: Lettering): { family: string; font?: ServedFont } => {
  const typeface = typefaceOf(heading, own)
  return (heading !== text && typeface.display) || typeface
}

/** The families of CSS that a site's words are set in. */
export const familiesOf = (site: Lettering) => ({ heading: headingOf(site).family, text: typefaceOf(site.type.text, site.own).family })

/** What has to be served for a choice of typefaces, each once. */
export function fontsOf(site: Lettering): ServedFont[] {
  const fonts = [headingOf(site).font, typefaceOf(site.type.text, site.own).font].filter(font => font !== undefined)
  return [...new Map(fonts.map(font => [font.name, font])).values()]
}

/** What is served for all typefaces that come with Trough, in all their cuts. */
export const ALL_FONTS: PackagedFont[] = TYPEFACE_NAMES.flatMap(name => {
  const { font, display }: Typeface<PackagedFont> = TYPEFACES[name]
  return [font, display?.font].filter(each => each !== undefined)
})
