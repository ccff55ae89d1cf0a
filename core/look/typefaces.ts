import { z } from 'zod'

/** How a font that every computer has is drawn to take the room of another, so that nothing jumps when that arrives (CSS Fonts 5). */
export interface Fallback {
  /** the fonts of the reader's computer */
  local: readonly string[]
  /** percent */
  sizeAdjust: number
  ascent: number
  descent: number
}

export interface ServedFont {
  name: string
  /** the first part of its files' names, and the end of the name of the package it comes in */
  file: string
  fallback: Fallback
  /** the size it is drawn for, in points, where that is not the one of running text (OpenType, `opsz`) */
  opticalSize?: number
}

export interface Typeface {
  title: string
  /** the family in CSS, with what stands in for it until it is there */
  family: string
  /** what is served for it; nothing where every computer has it */
  font?: ServedFont
  /** finer, for headings that are set in another typeface than the text */
  display?: { family: string; font: ServedFont }
}

const GEORGIA = ['Georgia'] as const
const ARIAL = ['Arial', 'ArialMT'] as const

type Measures = [sizeAdjust: number, ascent: number, descent: number]
const served = (name: string, file: string, generic: 'serif' | 'sans-serif', [sizeAdjust, ascent, descent]: Measures) => ({
  title: name,
  family: `"${name}","${name} stand-in",${generic}`,
  font: { name, file, fallback: { local: generic === 'serif' ? GEORGIA : ARIAL, sizeAdjust, ascent, descent } },
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
} as const satisfies Record<string, Typeface>
export type TypefaceName = keyof typeof TYPEFACES
export const TYPEFACE_NAMES = Object.keys(TYPEFACES) as [TypefaceName, ...TypefaceName[]]

const typefaceSchema = z.enum(TYPEFACE_NAMES)
/** The two type choices of a site. */
export const typeChoiceSchema = z.object({ heading: typefaceSchema, text: typefaceSchema })
export type TypeChoice = z.infer<typeof typeChoiceSchema>

export const DEFAULT_TYPE: TypeChoice = { heading: 'literata', text: 'hanken' }

/** How headings are set: in a cut for large sizes where the text has another typeface, for which it would be too fine. */
const headingOf = ({ heading, text }: TypeChoice): { family: string; font?: ServedFont } => {
  const typeface: Typeface = TYPEFACES[heading]
  return (heading !== text && typeface.display) || typeface
}

/** The families of CSS that a site's words are set in. */
export const familiesOf = (type: TypeChoice) => ({ heading: headingOf(type).family, text: TYPEFACES[type.text].family })

/** What has to be served for a choice of typefaces, each once. */
export function fontsOf(type: TypeChoice): ServedFont[] {
  const text: Typeface = TYPEFACES[type.text]
  return [...new Set([headingOf(type).font, text.font])].filter(font => font !== undefined)
}

/** What is served for all typefaces, in all their cuts. */
export const ALL_FONTS: ServedFont[] = TYPEFACE_NAMES.flatMap(name => {
  const { font, display }: Typeface = TYPEFACES[name]
  return [font, display?.font].filter(each => each !== undefined)
})
