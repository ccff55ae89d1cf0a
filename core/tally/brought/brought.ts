import { z } from 'zod'

/** What numbers of before may come in: access logs in the Combined Log Format, in the W3C Extended one, or a table of day, file, count. */
export const IMPORT_FORMATS = ['combined', 'w3c', 'counts'] as const
export type ImportFormat = (typeof IMPORT_FORMATS)[number]

/** Why lines say nothing of downloads that count. */
export const LEFT_OUT = ['unreadable', 'other', 'notAsked', 'robot', 'broken', 'repeated', 'later'] as const
export type LeftOut = (typeof LEFT_OUT)[number]

/** What was found in a file of numbers of before. */
export const foundSchema = z.object({
  format: z.enum(IMPORT_FORMATS),
  lines: z.number(),
  downloads: z.number(),
  /** ISO 8601; empty where nothing was found */
  firstDay: z.string(),
  lastDay: z.string(),
  /** the most taken first */
  files: z.array(z.object({ title: z.string(), handle: z.string(), count: z.number() })),
  /** lines by why they were left out */
  left: z.partialRecord(z.enum(LEFT_OUT), z.number()),
  /** addresses of no file here, the most asked first */
  others: z.array(z.object({ address: z.string(), count: z.number() })),
  /** the first day on which downloads were counted here; empty where there was none */
  countedFrom: z.string(),
})
export type Found = z.infer<typeof foundSchema>

export const importItemSchema = z.object({
  id: z.string(),
  name: z.string(),
  format: z.enum(IMPORT_FORMATS),
  downloads: z.number(),
  firstDay: z.string(),
  lastDay: z.string(),
  created: z.string(),
})
export type ImportItem = z.infer<typeof importItemSchema>

export const importQuerySchema = z.object({
  /** of the file */
  name: z.string().trim().min(1, 'Give the name of the file.').max(200),
  /** only days before this one; empty for all */
  before: z.union([z.literal(''), z.iso.date('Give a day such as 2026-11-24.')]).default(''),
})
export type ImportQuery = z.infer<typeof importQuerySchema>

export const broughtSchema = z.object({ found: foundSchema, item: importItemSchema })
