import { z } from 'zod'
import { daySchema } from '../timetable/setTime'
import type { Narrowing } from './columns'
import { DIMENSIONS, LISTED, type Listed } from './particulars'
import { AGAINST, SPANS, UNITS } from './span'

/** Days that dates of the database and calendars both hold. */
const heldDaySchema = daySchema.refine(day => day >= '1970' && day < '3000', 'Give a day of these centuries.')

const narrowed = Object.fromEntries(LISTED.map(dimension => [dimension, z.string().max(260).optional()])) as Record<
  Listed,
  z.ZodOptional<z.ZodString>
>

/** What a view of downloads shows, as its address says it. */
export const viewSchema = z.object({
  span: z.enum(SPANS).default('30'),
  from: heldDaySchema.optional(),
  to: heldDaySchema.optional(),
  against: z.enum(AGAINST).default('before'),
  unit: z.enum(UNITS).optional(),
  ...narrowed,
})
export type DownloadsView = z.infer<typeof viewSchema>

/** What bars may be told apart by. */
export const STACKS = ['none', 'file', 'inFolder', 'page', 'referrer', 'country', 'device', 'source'] as const

export const boardQuerySchema = viewSchema.extend({
  stack: z.enum(STACKS).default('none'),
  list: z.enum(LISTED).default('file'),
  /** rows of the list */
  most: z.coerce.number().int().min(1).max(1000).default(50),
})
export type BoardQuery = z.infer<typeof boardQuerySchema>

/** What a view is narrowed to. */
export const narrowingOf = (view: DownloadsView): Narrowing =>
  Object.fromEntries(LISTED.flatMap(dimension => (view[dimension] === undefined ? [] : [[dimension, view[dimension]]])))

const sumSchema = z.object({ count: z.number(), bytes: z.number() })

/** What a key stands for, where it is an identity: its title, and where it is looked after on the desk. */
const namedSchema = z.object({ title: z.string(), detail: z.string(), place: z.string().nullable() })
export type Named = z.infer<typeof namedSchema>

export const boardSchema = z.object({
  span: z.object({
    /** seconds since 1970 */
    from: z.number(),
    to: z.number(),
    firstDay: z.string(),
    lastDay: z.string(),
    before: z.object({ from: z.number(), to: z.number() }).nullable(),
    unit: z.enum(UNITS),
    units: z.array(z.enum(UNITS)),
    zone: z.string(),
  }),
  total: sumSchema,
  before: sumSchema.nullable(),
  /** each with the moment it begins, in seconds since 1970 */
  bars: z.array(z.object({ at: z.number(), count: z.number() })),
  /** in each hour of the week, from Monday midnight on */
  week: z.array(z.number()),
  stacks: z.array(z.object({ key: z.string(), bars: z.array(z.number()) })),
  list: z.object({
    dimension: z.enum(LISTED),
    keys: z.number(),
    rows: z.array(
      z.object({
        key: z.string(),
        count: z.number(),
        bytes: z.number(),
        before: z.number().nullable(),
        line: z.array(z.number()),
        /** how often its page was seen, or what is in the file looked at; where that can be said */
        seen: z.number().optional(),
        /** how often robots took it, who are not counted otherwise */
        robots: z.number().optional(),
        /** how often it was taken as part of a bundle, which is counted for the bundle */
        bundled: z.number().optional(),
      }),
    ),
  }),
  /** what was done in the span, to be seen beside the bars */
  marks: z.array(z.object({ at: z.number(), words: z.string(), place: z.string().nullable() })),
  /** names of keys that are identities, by dimension */
  names: z.record(z.string(), z.record(z.string(), namedSchema)),
  /** whether anything was ever taken */
  any: z.boolean(),
})
export type Board = z.infer<typeof boardSchema>

/** A view, and of it what has some words. */
export const foundViewSchema = viewSchema.extend({ q: z.string().trim().max(100, 'Look for at most 100 characters.').default('') })
export type FoundView = z.infer<typeof foundViewSchema>

export const logQuerySchema = foundViewSchema.extend({
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})
export type LogQuery = z.infer<typeof logQuerySchema>

export const logItemSchema = z.object({
  id: z.number(),
  at: z.string(),
  count: z.number(),
  bytes: z.number(),
  /** milliseconds until they were whole, of all together; 0 where that is not known */
  took: z.number(),
  referrerPath: z.string(),
  /** of the network; empty where it is not kept, or not any more */
  address: z.string(),
  /** by dimension; empty where it is not known */
  keys: z.record(z.enum(DIMENSIONS), z.string()),
})
export type LogItem = z.infer<typeof logItemSchema>
export const logSchema = z.object({
  items: z.array(logItemSchema),
  total: z.number(),
  names: boardSchema.shape.names,
})
export type DownloadsLog = z.infer<typeof logSchema>
