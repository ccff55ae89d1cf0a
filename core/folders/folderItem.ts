import { z } from 'zod'
import { cut } from '../cut'
import { fold } from '../find/fold'
import { saidGateSchema } from '../gate/gate'
import { saidSchema } from '../see/mayBeSeen'

/** A colour mark a folder can carry; the desk's own colours. */
export const MARKS = ['water', 'clay', 'straw', 'moss'] as const
export type Mark = (typeof MARKS)[number]

/** A folder as the desk's API gives it. */
export const folderItemSchema = z.object({
  id: z.string(),
  /** the folder it lies in; null at the top of the library */
  parent: z.string().nullable(),
  name: z.string(),
  mark: z.enum(MARKS).nullable(),
  description: z.string(),
  /** files lie in the order the owner gave them */
  ownOrder: z.boolean(),
  /** visitors may look at what is in and below it before they take it */
  see: saidSchema,
  /** visitors find what is in and below it although it stands on no page */
  found: saidSchema,
  /** what is in and below it stands behind this gate */
  gate: saidGateSchema,
  /** files right in it */
  files: z.number(),
  /** ISO 8601 */
  created: z.string(),
  deleted: z.string().nullable(),
})
export type FolderItem = z.infer<typeof folderItemSchema>

/** A folder in the bin. */
export const binnedFolderSchema = z.object({
  id: z.string(),
  name: z.string(),
  /** ISO 8601 */
  deleted: z.string(),
  /** files that went with it */
  files: z.number(),
})
export type BinnedFolder = z.infer<typeof binnedFolderSchema>

/** In lists and requests: the top of the library, which is no folder itself. */
export const TOP = 'top'

// Control characters, separators, and marks that reorder text do not belong in a name that becomes a path.
// eslint-disable-next-line no-control-regex
const UNFIT = /[\u0000-\u001F\u007F-\u009F\u200E\u200F\u202A-\u202E\u2066-\u2069\uFEFF/\\]/g

/** A folder name that is safe in a path; empty where nothing is left of it. */
export function cleanFolderName(raw: string): string {
  const name = raw
    .normalize('NFC')
    .toWellFormed()
    .replace(UNFIT, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    // A letter and a colon are a drive to many who unpack.
    .replace(/^([a-z]):/i, '$1')
  return /^\.+$/.test(name) ? '' : cut(name, 120).trim()
}

/** What makes two names the same among siblings: neither case nor accents tell folders apart. */
export const sameName = (a: string, b: string) => fold(a) === fold(b)

export const folderNameSchema = z
  .string()
  .max(400, 'Keep the name to 120 characters.')
  .transform(cleanFolderName)
  .refine(name => name !== '', 'Give the folder a name.')

/** An identity, or null for the top of the library. */
export const placeSchema = z.union([z.literal(TOP), z.string().min(1).max(40), z.null()]).transform(place => (place === TOP ? null : place))

export const newFolderSchema = z.object({ name: folderNameSchema, parent: placeSchema.default(null) })
export type NewFolder = z.infer<typeof newFolderSchema>

export const folderChangeSchema = z.object({
  name: folderNameSchema.optional(),
  mark: z
    .enum(MARKS, `A mark is one of ${MARKS.join(', ')}.`)
    .nullable()
    .optional(),
  description: z.string().trim().max(2000, 'Keep the description to 2000 characters.').optional(),
  ownOrder: z.boolean().optional(),
  see: saidSchema.optional(),
  found: saidSchema.optional(),
  gate: saidGateSchema.optional(),
})
export type FolderChange = z.infer<typeof folderChangeSchema>
