import { z } from 'zod'
import { canonical } from '../canonical'
import { colourSchema } from './colour'

const pixels = (least: number, most: number) => z.number().min(least).max(most)

const fillSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  z.object({ kind: z.literal('plain'), colour: colourSchema }),
  z.object({
    kind: z.literal('gradient'),
    /** degrees clockwise from upwards, as in CSS */
    angle: z.number().min(0).max(360),
    stops: z
      .array(z.object({ colour: colourSchema, /** percent of the way */ at: z.number().min(0).max(100) }))
      .min(2)
      .max(5),
  }),
  z.object({
    kind: z.literal('picture'),
    /** identity of the picture's file */
    file: z.string().min(1).max(40),
    /** lies over the picture, so that words stand out, and takes its place where it is not there */
    colour: colourSchema,
    /** percent of the colour in what is seen */
    veil: z.number().min(0).max(100),
  }),
])
export type Fill = z.infer<typeof fillSchema>

const shadowSchema = z.object({
  x: pixels(-40, 40),
  y: pixels(-40, 40),
  blur: pixels(0, 80),
  colour: colourSchema,
  /** percent */
  strength: z.number().min(0).max(100),
})
export type Shadow = z.infer<typeof shadowSchema>

/** What differs while a button is under the pointer or pressed; what is left out stays. */
const stateSchema = z
  .object({
    fill: fillSchema,
    words: colourSchema,
    /** of the second line, and of the icon */
    note: colourSchema,
    icon: colourSchema,
    border: colourSchema,
    shadow: shadowSchema.nullable(),
  })
  .partial()
export type StateChange = z.infer<typeof stateSchema>

const iconSchema = z.object({
  name: z.string().max(60),
  /** the outline in a square of 24 (SVG 2, path data) */
  path: z
    .string()
    .max(4000)
    .regex(/^[MmLlHhVvCcSsQqTtAaZz\d\s,.e+-]*$/, 'This is not the outline of an icon.'),
  place: z.enum(['before', 'after', 'above']),
  size: pixels(8, 96),
  gap: pixels(0, 48),
  /** null for that of the words */
  colour: colourSchema.nullable(),
})
export type Icon = z.infer<typeof iconSchema>

export const WEIGHTS = [400, 500, 600, 700, 800] as const
export const MOST_WIDE = 1000

/** The second line, where it is set apart from the label. */
const secondLineSchema = z.object({
  size: pixels(8, 48),
  weight: z.literal(WEIGHTS),
  /** to the label */
  gap: pixels(0, 40),
  /** it stands above the label, where it is not at the far end */
  above: z.boolean(),
})
export type SecondLine = z.infer<typeof secondLineSchema>

/** The second line as it is where nothing is said of it: smaller than the label, and close below. */
export const usualSecondLine = (size: number): SecondLine => ({
  size: Math.round(size * 82) / 100,
  weight: 400,
  gap: Math.round(size * 10) / 100,
  above: false,
})

/** How a button looks. Lengths are CSS pixels. */
export const appearanceSchema = z.object({
  /** as wide as its words, as its place, or exactly so many pixels */
  width: z.union([z.enum(['fit', 'fill']), z.number().int().min(40).max(MOST_WIDE)]),
  /** label above its second line, or the two at both ends of one line */
  arrange: z.enum(['stacked', 'ends']),
  padding: z.object({ y: pixels(0, 80), x: pixels(0, 160) }),
  radius: pixels(0, 100),
  border: z.object({ width: pixels(0, 20), sides: z.enum(['all', 'ends']), colour: colourSchema }),
  fill: fillSchema,
  shadow: shadowSchema.nullable(),
  words: colourSchema,
  /** null for that of the words */
  noteColour: colourSchema.nullable(),
  underline: z.boolean(),
  /** null where it is as is usual beside a label of this size; looks that were made before leave it out */
  second: secondLineSchema.nullable().default(null),
  size: pixels(10, 48),
  weight: z.literal(WEIGHTS),
  icon: iconSchema.nullable(),
  /** above and below, to its neighbours */
  distance: pixels(0, 80),
  hover: stateSchema,
  pressed: stateSchema,
  focus: z.object({ colour: colourSchema, width: pixels(2, 8) }),
  /** milliseconds from one state to the next */
  change: z.number().min(0).max(1000),
})
export type Appearance = z.infer<typeof appearanceSchema>

/** What one button has otherwise than its look. */
export const overridesSchema = appearanceSchema.extend({ second: secondLineSchema.nullable() }).partial()
export type Overrides = z.infer<typeof overridesSchema>

export const withOverrides = (appearance: Appearance, own: Overrides | null | undefined): Appearance => ({ ...appearance, ...own })

/** The second line of a button as it is drawn. */
export const secondLineOf = ({ second, size }: Pick<Appearance, 'second' | 'size'>): SecondLine => second ?? usualSecondLine(size)

/** What of an appearance differs from another. */
export function overridesBetween(look: Appearance, own: Appearance): Overrides {
  const names = Object.keys({ ...look, ...own }) as (keyof Appearance)[]
  return Object.fromEntries(
    names.filter(name => canonical(look[name] ?? null) !== canonical(own[name] ?? null)).map(name => [name, own[name]]),
  )
}
