import { z } from 'zod'
import { slugify } from '../files/handle'

/** What a field can hold. */
export const FIELD_KINDS = [
  'text',
  'longText',
  'number',
  'money',
  'date',
  'yesNo',
  'choice',
  'choices',
  'picture',
  'pictures',
  'file',
  'files',
  'link',
  'email',
  'phone',
  'place',
] as const
export const fieldKindSchema = z.enum(FIELD_KINDS)
export type FieldKind = z.infer<typeof fieldKindSchema>

/** The field by which entries are known: always there, first, and a line of text. */
export const TITLE = 'title'

export const MOST_FIELDS = 60
export const MOST_OPTIONS = 200

export const fieldIdSchema = z.string().regex(/^[a-z0-9]{1,16}$/)
export const optionSchema = z.object({
  id: fieldIdSchema,
  name: z.string().trim().min(1, 'Give the choice a name.').max(120, 'Keep a choice to 120 characters.'),
})
export type Option = z.infer<typeof optionSchema>

export const fieldSchema = z.object({
  id: fieldIdSchema,
  name: z.string().trim().min(1, 'Give the field a name.').max(80, 'Keep the name of a field to 80 characters.'),
  kind: fieldKindSchema,
  /** an entry cannot go live without it */
  required: z.boolean().default(false),
  /** no two entries have the same */
  unique: z.boolean().default(false),
  /** said below it where it is filled in */
  hint: z.string().trim().max(200, 'Keep the help to 200 characters.').default(''),
  /** what new entries begin with, written as in a cell; nothing for files */
  initial: z.string().max(500, 'Keep what new entries begin with to 500 characters.').default(''),
  /** of files: the folder whose files find their entries by their names, as they come */
  folder: z.string().max(40).nullable().default(null),
  /** it has a column in the table of the desk */
  listed: z.boolean().default(true),
  /** written behind a number: "kg" */
  unit: z.string().trim().max(20, 'Keep the unit to 20 characters.').default(''),
  /** digits behind the decimal sign; as many as there are where left out */
  decimals: z.number().int().min(0).max(6).nullable().default(null),
  /** of money, by ISO 4217 */
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, 'Give the currency by its three letters, such as EUR.')
    .default('EUR'),
  /** what can be chosen, in the order in which it is shown and sorted */
  options: z.array(optionSchema).max(MOST_OPTIONS, `Keep it to ${MOST_OPTIONS} choices.`).default([]),
})
export type Field = z.infer<typeof fieldSchema>

/** A field as it starts out. */
export const newField = (id: string, name: string, kind: FieldKind = 'text', more: Partial<Field> = {}): Field =>
  fieldSchema.parse({ ...more, id, name, kind })

const nameOf = ({ name }: Field) => name.toLowerCase()

/** The fields of a catalogue: each once, the one that names entries among them. */
export const fieldsSchema = z
  .array(fieldSchema)
  .min(1)
  .max(MOST_FIELDS, `Keep it to ${MOST_FIELDS} fields.`)
  .refine(
    fields => fields[0]?.id === TITLE && fields[0].kind === 'text',
    'The field that names entries comes first, and is a line of text.',
  )
  .refine(fields => new Set(fields.map(({ id }) => id)).size === fields.length, 'Two fields have the same identity.')
  .refine(fields => new Set(fields.map(nameOf)).size === fields.length, 'Two fields have the same name. Call one of them otherwise.')

export const isFileKind = (kind: FieldKind): boolean => kind === 'file' || kind === 'files' || kind === 'picture' || kind === 'pictures'
/** It holds several things. */
export const isMany = (kind: FieldKind): boolean => kind === 'choices' || kind === 'files' || kind === 'pictures'
export const isChoice = (kind: FieldKind): boolean => kind === 'choice' || kind === 'choices'
export const isNumeric = (kind: FieldKind): boolean => kind === 'number' || kind === 'money'
/** It can be what a button or link leads to. */
export const isTarget = (kind: FieldKind): boolean => kind === 'file' || kind === 'link' || kind === 'email' || kind === 'phone'

/** Words of an address that lists use for something else. */
const TAKEN = new Set(['q', 'sort', 'page', 'list', 'at', 'open', 'save'])

const keysOf = new WeakMap<Field[], Map<string, string>>()
/** What stands for a field in the address of a narrowed list: its name, with its identity where another's would be written alike. */
export function fieldKey({ id }: Pick<Field, 'id'>, fields: Field[]): string {
  let keys = keysOf.get(fields)
  if (!keys) {
    const words = fields.map(field => slugify(field.name))
    const isTaken = (word: string, at: number) =>
      TAKEN.has(word) || words.some((other, place) => place !== at && [other, `${other}-from`, `${other}-to`].includes(word))
    keys = new Map(
      fields.map((field, at) => {
        const word = words[at]!
        return [field.id, word && !isTaken(word, at) ? word : `${word || 'field'}-${field.id}`]
      }),
    )
    keysOf.set(fields, keys)
  }
  return keys.get(id)!
}
/** What stands for each choice there, by identity. */
export function optionKeys(options: Option[]): Map<string, string> {
  const words = options.map(({ name }) => slugify(name))
  return new Map(
    options.map(({ id }, at) => {
      const word = words[at]!
      return [id, !word ? id : words.indexOf(word) === words.lastIndexOf(word) ? word : `${word}-${id}`]
    }),
  )
}
