import { z } from 'zod'
import { countedSchema } from '../counted'
import { slugSchema } from '../page/slug'
import { fieldIdSchema } from './field'

/** What a field of an entry holds: words, a number, yes or no, or identities of choices or files. What is empty is left out. */
export const valueSchema = z.union([z.string().max(20_000), z.number(), z.boolean(), z.array(z.string().max(40)).max(200)])
export type Value = z.infer<typeof valueSchema>

export const valuesSchema = z.record(fieldIdSchema, valueSchema)
/** The values of an entry by the identities of its fields. */
export type Values = z.infer<typeof valuesSchema>

/** What an entry had in a field that was taken out: as it was written, and as visitors saw it. */
export interface HeldValue {
  draft?: Value
  live?: Value
}

/** An entry as the desk shows it. */
export const entryItemSchema = z.object({
  id: z.string(),
  /** the last part of its address */
  slug: z.string(),
  values: valuesSchema,
  /** visitors see it */
  live: z.boolean(),
  /** what is written is not what visitors see */
  waiting: z.boolean(),
  /** counts its changes, so that two people notice each other */
  revision: z.number(),
  /** ISO 8601 */
  changed: z.string(),
})
export type EntryItem = z.infer<typeof entryItemSchema>

/** An entry as visitors see it. */
export interface LiveEntry {
  id: string
  slug: string
  values: Values
  /** when it went live as it is, ISO 8601 */
  published: string
}

export const binnedFieldSchema = z.object({
  id: z.string(),
  name: z.string(),
  /** entries that have something in it */
  entries: z.number(),
  deleted: z.string(),
})
/** A field that was taken out of its catalogue. */
export type BinnedField = z.infer<typeof binnedFieldSchema>

export const binnedEntrySchema = z.object({ id: z.string(), title: z.string(), deleted: z.string() })
export type BinnedEntry = z.infer<typeof binnedEntrySchema>

/** Cells of an entry as they shall be; null empties one. */
export const entryChangeSchema = z.object({
  values: z.record(fieldIdSchema, valueSchema.nullable()),
  /** what the change was made to: somebody else's change of the same cells is not written over */
  revision: countedSchema,
})
export type EntryChange = z.infer<typeof entryChangeSchema>

export const entryPlaceSchema = z.object({ id: z.string(), title: z.string() })
/** A page on which something leads to an entry. */
export type EntryPlace = z.infer<typeof entryPlaceSchema>

export const entryTakenSchema = z.object({ entry: z.string(), /** downloads of its files in thirty days */ count: z.number() })
export type EntryTaken = z.infer<typeof entryTakenSchema>

export const MOST_ENTRIES = 20_000
const MOST_AT_ONCE = 5000
export const entryIdsSchema = z.object({ ids: z.array(z.string().max(40)).min(1, 'Choose at least one entry.').max(MOST_ENTRIES) })

export const removeEntriesSchema = entryIdsSchema.extend({ /** although something leads to them */ despite: z.boolean().default(false) })

export const changeEntriesSchema = z.object({
  changes: z
    .array(entryChangeSchema.extend({ id: z.string().max(40) }))
    .min(1)
    .max(MOST_AT_ONCE, `Change at most ${MOST_AT_ONCE} entries at once.`),
})
export const newEntriesSchema = z.object({
  entries: z.array(valuesSchema).min(1).max(MOST_AT_ONCE, `Make at most ${MOST_AT_ONCE} entries at once.`),
  /** they are copies: what they leave empty stays so, whatever new ones begin with */
  copies: z.boolean().default(false),
})
export const entrySlugSchema = z.object({ slug: slugSchema.min(1, 'Give the entry an address, such as stoneware-body.') })
export const entryOrderSchema = z.object({ ids: z.array(z.string().max(40)).max(MOST_ENTRIES) })

/** Nothing named: all that wait. */
export const publishEntriesSchema = z.object({ ids: z.array(z.string().max(40)).max(MOST_ENTRIES).optional() })
/** Files that look for their entries. */
export const matchSchema = z.object({ field: fieldIdSchema, files: z.array(z.string().max(40)).min(1).max(5000) })

export const EXPORT_FORMATS = ['csv', 'xlsx', 'json', 'zip'] as const
export const exportQuerySchema = z.object({ format: z.enum(EXPORT_FORMATS).default('csv') })
export type ExportFormat = (typeof EXPORT_FORMATS)[number]

/** An entry that something can lead to. */
export const ledEntrySchema = z.object({
  id: z.string(),
  title: z.string(),
  /** of its page, from the top of the site */
  slug: z.string(),
  catalogue: z.string(),
  /** visitors find its page */
  live: z.boolean(),
})
export type LedEntry = z.infer<typeof ledEntrySchema>
export const ledEntriesQuerySchema = z.object({
  q: z.string().max(200).default(''),
  ids: z
    .string()
    .max(8000)
    .default('')
    .transform(ids => ids.split(',').filter(Boolean)),
})

export const entryListQuerySchema = z.object({
  /** how many of the first are wanted; all where left out */
  first: z.coerce.number().int().min(1).max(200).optional(),
  /** the stamp of what is known already: only what changed since is wanted, where it can be told */
  since: z.string().max(60).optional(),
})

/** Entries of a catalogue. */
export const entryListSchema = z.object({
  items: z.array(entryItemSchema),
  /** all that was asked for; otherwise those that changed since, each in its place */
  whole: z.boolean(),
  /** what is known from now on */
  stamp: z.string(),
})
export type EntryList = z.infer<typeof entryListSchema>

/** A state of an entry that was live. */
export const entryVersionSchema = z.object({
  number: z.number(),
  values: valuesSchema,
  /** ISO 8601 */
  published: z.string(),
  /** e-mail of who put it live; empty where it followed something else */
  by: z.string(),
})
export type EntryVersion = z.infer<typeof entryVersionSchema>
