import { z } from 'zod'
import { fieldIdSchema } from './field'

/** How the entries of a list stand on a page. */
export const LIST_WAYS = ['cards', 'tiles', 'lines', 'table'] as const
export type ListWay = (typeof LIST_WAYS)[number]

export const LARGEST_PAGE = 200

/** What an entry must be like to stand in a list. */
export const conditionSchema = z.object({
  field: fieldIdSchema,
  /** it has something there, nothing, this very value, or what the entry has on whose page the list stands */
  is: z.enum(['set', 'empty', 'value', 'same']),
  value: z.union([z.string().max(200), z.boolean()]).optional(),
})
export type Condition = z.infer<typeof conditionSchema>

export const listAttrsSchema = z.object({
  placement: z.string().regex(/^[a-z0-9]{6,16}$/),
  /** identity of the catalogue; null until one is chosen */
  catalogue: z.string().max(40).nullable(),
  way: z.enum(LIST_WAYS),
  /** cards or tiles side by side, where there is room */
  across: z.number().int().min(1).max(4),
  /** what a table has columns of; none for all that are shown in lists */
  fields: z.array(fieldIdSchema).max(20, 'Keep a table to 20 columns.'),
  /** null for the catalogue's own order */
  sort: z.object({ field: fieldIdSchema, down: z.boolean() }).nullable(),
  /** entries with the same stand under a heading of it */
  group: fieldIdSchema.nullable(),
  /** entries on one page of it */
  limit: z.number().int().min(1).max(LARGEST_PAGE, `Keep it to ${LARGEST_PAGE} on one page.`),
  only: z.array(conditionSchema).max(10, 'Keep it to ten conditions.'),
  /** a field above it looks through it */
  search: z.boolean(),
  /** fields by which visitors narrow it down */
  narrow: z.array(fieldIdSchema).max(6, 'Let visitors narrow it down by six fields at most.'),
})
export type ListAttrs = z.infer<typeof listAttrsSchema>

/** It stands wider than text is best read: more than two cards side by side would be too narrow in that. */
export const isWideList = ({ way, across }: Pick<ListAttrs, 'way' | 'across'>): boolean =>
  (way === 'cards' || way === 'tiles') && across > 2

/** A list as it starts out. */
export const newList = (placement: string, catalogue: string | null): ListAttrs => ({
  placement,
  catalogue,
  way: 'cards',
  across: 2,
  fields: [],
  sort: null,
  group: null,
  limit: 24,
  only: [],
  search: false,
  narrow: [],
})
