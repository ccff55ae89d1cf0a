import { z } from 'zod'
import { fieldIdSchema, fieldKindSchema, fieldsSchema } from './field'

/** looked at: nothing came in yet; running: it comes in, or was cut off; done */
export type ImportState = 'looked' | 'running' | 'done'

/** A column of a table that comes in, as it was read. */
export const importColumnSchema = z.object({
  /** what stands above it; made up where nothing does */
  name: z.string(),
  /** some of what is in it */
  samples: z.array(z.string()),
  /** cells that are not empty */
  filled: z.number(),
  decimal: z.enum(['.', ',']),
  dayFirst: z.boolean(),
  /** what it most likely holds */
  kind: fieldKindSchema,
  unit: z.string(),
  currency: z.string(),
})
export type ImportColumn = z.infer<typeof importColumnSchema>

/** Where each column goes: into a field, a new one, or nowhere. */
export const mappingSchema = z
  .array(
    z.discriminatedUnion('to', [
      z.object({ to: z.literal('nowhere') }),
      z.object({ to: z.literal('field'), field: fieldIdSchema }),
      z.object({ to: z.literal('new'), name: z.string().trim().min(1).max(80), kind: fieldKindSchema }),
    ]),
  )
  .max(200)
export type Mapping = z.infer<typeof mappingSchema>

const othersSchema = z.enum(['stay', 'bin'])
export const importPlanSchema = z.object({
  /** the catalogue it goes into; null for a new one */
  catalogue: z.string().max(40).nullable(),
  /** what the new one is called */
  name: z.string().trim().max(60).default(''),
  one: z.string().trim().max(60).default(''),
  mapping: mappingSchema,
  /** the column that tells entries apart; null for the one that names them */
  key: z.number().int().min(0).max(199).nullable().default(null),
  /** entries that are not in the table go to the bin */
  others: othersSchema.default('stay'),
  /** the file it was read from stays its source: the next edition is the next table */
  follow: z.boolean().default(false),
  /** bring in what can be, although some cells cannot */
  despite: z.boolean().default(false),
})
export type ImportPlan = z.infer<typeof importPlanSchema>

export const importCountsSchema = z.object({
  new: z.number(),
  changed: z.number(),
  /** as they are already */
  same: z.number(),
  /** entries that are not in the table */
  others: z.number(),
  /** rows that are left out */
  left: z.number(),
  /** cells that are left out */
  wrong: z.number(),
})
export type ImportCounts = z.infer<typeof importCountsSchema>

/** A cell that cannot come in, or a row. */
export const wrongCellSchema = z.object({
  /** counted from 1 as a spreadsheet does, its heading included */
  row: z.number(),
  column: z.string(),
  words: z.string(),
})
export type WrongCell = z.infer<typeof wrongCellSchema>

/** A file of the library that tables of a catalogue come from, and how the last one went in. */
export const tableSourceSchema = z.object({
  file: z.string(),
  /** number of the edition that came in last */
  edition: z.number().int(),
  /** where its columns went, by what stands above them; null for nowhere */
  columns: z.array(z.object({ name: z.string(), field: fieldIdSchema.nullable() })),
  /** what stands above the column that tells entries apart; null for the one that names them */
  key: z.string().nullable(),
  others: othersSchema,
})
export type TableSource = z.infer<typeof tableSourceSchema>

/** What a table holds, and what would come of it. */
export const importLookSchema = z.object({
  id: z.string(),
  name: z.string(),
  columns: z.array(importColumnSchema),
  rows: z.number(),
  /** it is a file of the library, and can be followed */
  ofLibrary: z.boolean(),
  /** as it goes in where nothing else is said */
  plan: importPlanSchema,
})
export type ImportLook = z.infer<typeof importLookSchema>

export const importForecastSchema = z.object({
  counts: importCountsSchema,
  /** the first of them */
  wrong: z.array(wrongCellSchema),
  fields: fieldsSchema,
  /** the first entries as they would be, by the names of fields */
  samples: z.array(z.record(z.string(), z.string())),
})
export type ImportForecast = z.infer<typeof importForecastSchema>

export const importItemSchema = z.object({
  id: z.string(),
  name: z.string(),
  catalogue: z.string(),
  counts: importCountsSchema,
  /** ISO 8601 */
  created: z.string(),
})
export type ImportItem = z.infer<typeof importItemSchema>

/** A file of the library that is looked at as a table, and the catalogue it goes into. */
export const importFileSchema = z.object({ file: z.string().max(40), catalogue: z.string().max(40).nullable() })

/** A table that is looked at, and the catalogue it goes into; empty for a new one. */
export const importLookQuerySchema = z.object({
  name: z.string().trim().min(1, 'Give the name of the file.').max(200),
  catalogue: z.string().max(40).default(''),
})
