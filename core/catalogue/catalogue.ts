import { z } from 'zod'
import { countedSchema } from '../counted'
import { writtenSlugSchema } from '../page/slug'
import { fieldIdSchema, fieldSchema, fieldsSchema, TITLE, type Field, type Option } from './field'
import { tableSourceSchema } from './import'

/** What an entry is, for programs (schema.org); nothing where it is none of these. */
export const ENTRY_TYPES = ['Product', 'Course', 'Event', 'Person', 'Place', 'DigitalDocument'] as const

const nameSchema = z.string().trim().min(1, 'Give it a name.').max(60, 'Keep the name to 60 characters.')

export const catalogueItemSchema = z.object({
  id: z.string(),
  /** of all: "Products" */
  name: z.string(),
  /** of one: "product" */
  one: z.string(),
  /** first part of the addresses of its entries */
  slug: z.string(),
  fields: z.array(fieldSchema),
  /** what tells entries apart where a table is brought in; null for their name */
  key: z.string().nullable(),
  type: z.enum(ENTRY_TYPES).nullable(),
  /** fields that programs are told as properties of that type, by those; others are told by what they hold */
  properties: z.record(z.string(), fieldIdSchema),
  /** its one entry holds the values of the whole site */
  ofSite: z.boolean(),
  /** the file of the library that its tables come from */
  source: tableSourceSchema.nullable(),
  /** the page on which each entry is laid out; null where entries have none */
  layout: z.string().nullable(),
  entries: z.number(),
  /** entries that visitors see */
  live: z.number(),
  waiting: z.number(),
  /** counts the changes of its fields */
  revision: z.number(),
})
export type CatalogueItem = z.infer<typeof catalogueItemSchema>
/** What a catalogue is, whatever its entries. */
export type Catalogue = Omit<CatalogueItem, 'entries' | 'live' | 'waiting'>

export const newCatalogueSchema = z.object({
  name: nameSchema,
  one: nameSchema,
  fields: fieldsSchema.optional(),
})
export type NewCatalogue = z.infer<typeof newCatalogueSchema>

export const catalogueChangeSchema = z
  .object({
    name: nameSchema,
    one: nameSchema,
    slug: writtenSlugSchema,
    key: z.string().max(16).nullable(),
    type: z.enum(ENTRY_TYPES).nullable(),
    properties: z.record(z.string().max(40), fieldIdSchema),
    /** only taken off here: a table that comes in sets it */
    source: z.null(),
  })
  .partial()
export type CatalogueChange = z.infer<typeof catalogueChangeSchema>

export const fieldsChangeSchema = z.object({
  fields: fieldsSchema,
  revision: countedSchema,
  /** go on although values are lost */
  despite: z.boolean().default(false),
})
export type FieldsChange = z.infer<typeof fieldsChangeSchema>

export const restoreFieldSchema = z.object({ /** identity of what lies in the bin */ field: z.string().max(40) })

export const fieldOf = (fields: Field[], id: string): Field | undefined => fields.find(field => field.id === id)
export const titleField = (fields: Field[]): Field => fieldOf(fields, TITLE)!
export const optionOf = ({ options }: Pick<Field, 'options'>, id: string): Option | undefined => options.find(option => option.id === id)

/** The address of an entry's page, from the top of the site. */
export const entrySlug = (catalogue: string, entry: string): string => `${catalogue}/${entry}`
