import { z } from 'zod'

interface Typeface {
  title: string
  /** the family in CSS, with what stands in for it until it is there */
  family: string
  /** what is served for it; nothing where every computer has it */
  font?: { name: string; url: string; weights: string }
}

/** Typefaces a site can be set in. */
export const TYPEFACES = {
  literata: {
    title: 'Literata',
    family: '"Literata",Georgia,serif',
    font: { name: 'Literata', url: '/_fonts/literata/literata-latin-wght-normal.woff2', weights: '200 900' },
  },
  hanken: {
    title: 'Hanken Grotesk',
    family: '"Hanken Grotesk",system-ui,sans-serif',
    font: { name: 'Hanken Grotesk', url: '/_fonts/hanken/hanken-grotesk-latin-wght-normal.woff2', weights: '100 900' },
  },
  serif: { title: 'The reader’s own serif', family: 'ui-serif,Georgia,serif' },
  sans: { title: 'The reader’s own sans', family: 'system-ui,sans-serif' },
} as const satisfies Record<string, Typeface>
export type TypefaceName = keyof typeof TYPEFACES

const typefaceSchema = z.enum(Object.keys(TYPEFACES) as [TypefaceName, ...TypefaceName[]])
/** The two type choices of a site. */
export const typeChoiceSchema = z.object({ heading: typefaceSchema, text: typefaceSchema })
export type TypeChoice = z.infer<typeof typeChoiceSchema>

export const DEFAULT_TYPE: TypeChoice = { heading: 'literata', text: 'hanken' }

/** What has to be served for some choices, each once. */
export const fontsOf = ({ heading, text }: TypeChoice) =>
  [...new Set([heading, text])].flatMap(name => {
    const typeface: Typeface = TYPEFACES[name]
    return typeface.font ?? []
  })
