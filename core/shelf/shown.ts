import { z } from 'zod'

/** How files stand: one below the other, in a table, as tiles or cards, small for margins, or as pictures that are seen large. */
export const LAYOUTS = ['lines', 'table', 'tiles', 'cards', 'compact', 'pictures'] as const
export type Layout = (typeof LAYOUTS)[number]

/** What is shown of a file, besides its title: in the order they are listed, before or behind it. */
export const SHELF_PARTS = ['picture', 'icon', 'title', 'new', 'facts', 'description', 'look', 'button'] as const
export type ShelfPart = (typeof SHELF_PARTS)[number]

/** What is said of a file beside its title; columns where it is a table. */
export const SHELF_FACTS = ['type', 'size', 'date', 'edition', 'pages', 'downloads', 'tags'] as const
export type ShelfFact = (typeof SHELF_FACTS)[number]

export const DENSITIES = ['close', 'even', 'airy'] as const
export const ICON_SIZES = ['small', 'medium', 'large'] as const

const each = <Name extends string>(names: readonly [Name, ...Name[]]) =>
  z
    .array(z.enum(names))
    .max(names.length)
    .refine(given => new Set(given).size === given.length, 'Name each once.')

/** How a shelf shows its files. */
export const shownSchema = z.object({
  layout: z.enum(LAYOUTS),
  parts: each(SHELF_PARTS),
  facts: each(SHELF_FACTS),
  /** days a file is marked as new after it came in or its edition did */
  newDays: z.number().int().min(1).max(366),
  icons: z.enum(ICON_SIZES),
  density: z.enum(DENSITIES),
  /** tiles and cards side by side, where there is room for that many and on a phone */
  columns: z.object({ wide: z.number().int().min(1).max(6), narrow: z.number().int().min(1).max(3) }),
})
export type Shown = z.infer<typeof shownSchema>
/** What a shelf has otherwise than its look. */
export const ownShownSchema = shownSchema.partial()
export type OwnShown = z.infer<typeof ownShownSchema>

const USUAL: Omit<Shown, 'layout'> = {
  parts: ['title', 'facts'],
  facts: ['type', 'size'],
  newDays: 14,
  icons: 'medium',
  density: 'even',
  columns: { wide: 3, narrow: 1 },
}
/** What each layout has otherwise, so that none needs a setting touched. */
const BY_LAYOUT: Record<Layout, Partial<Shown>> = {
  lines: {},
  table: { facts: ['type', 'size', 'date'] },
  tiles: { parts: ['picture', 'title', 'facts'], columns: { wide: 4, narrow: 2 } },
  cards: { parts: ['picture', 'title', 'description', 'facts', 'button'] },
  compact: { density: 'close' },
  pictures: {},
}
/** Layouts whose items stand side by side. */
export const SIDE_BY_SIDE: readonly Layout[] = ['tiles', 'cards']

/** How a shelf is shown of which so much is said; the rest is as is usual for its layout. */
export function shownOf(own: OwnShown): Shown {
  const layout = own.layout ?? 'lines'
  const said = Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined))
  return { ...USUAL, ...BY_LAYOUT[layout], ...said, layout }
}
