import { z } from 'zod'
import { placeSchema } from '../folders/folderItem'

/** Columns files can be sorted by; with a hyphen before it, the other way round. */
const FILE_SORTS = [
  'title',
  'type',
  'size',
  'added',
  'changed',
  'used',
  'downloads',
  'taken7',
  'taken30',
  'taken90',
  'pages',
  'tags',
  'own',
] as const

/** Days, up to and with today, in which downloads are counted for an order such as `-taken30`; undefined for any other order. */
export function takenDays(sort: string): '7' | '30' | '90' | undefined {
  return /^-?taken(7|30|90)$/.exec(sort)?.[1] as '7' | '30' | '90' | undefined
}

const several = z
  .union([z.string().max(100), z.array(z.string().max(100)).max(50)])
  .default([])
  .transform(value => [value].flat().filter(Boolean))
const yes = z
  .enum(['true', 'false'])
  .default('false')
  .transform(value => value === 'true')
const isMoment = (text: string) => z.union([z.iso.date(), z.iso.datetime({ offset: true })]).safeParse(text).success
/** A day, or a moment with its offset. */
const moment = z.string().refine(isMoment, 'Give a day such as 2026-11-24, or a moment with its offset.')
const bytes = z.coerce.number('Give a size in bytes.').int().min(0)

/** Which files, and in which order; the parts of an address after `/api/files?`. */
export const fileFilterSchema = z.object({
  /** files right in this folder; "top" for those in none. Left out: all files */
  folder: placeSchema.optional(),
  /** with `folder`: and in the folders below it */
  below: yes,
  /** in any of these folders or below */
  among: several,
  /** pieces of a title, file name, handle, description or tag, or words inside the document */
  q: z.string().trim().max(200, 'Look for at most 200 characters.').optional(),
  /** media types, or families such as "picture"; any of them */
  type: several,
  /** all of them */
  tag: several,
  used: z.enum(['yes', 'no']).optional(),
  /** with an edition newer than the current one */
  waits: yes,
  /** what is still to be read, or could not be */
  reading: z.enum(['waiting', 'failed']).optional(),
  addedFrom: moment.optional(),
  addedTo: moment.optional(),
  changedFrom: moment.optional(),
  changedTo: moment.optional(),
  least: bytes.optional(),
  most: bytes.optional(),
  /** files in the bin instead of the others */
  bin: yes,
  sort: z
    .string()
    .default('-changed')
    .refine(
      sort => (FILE_SORTS as readonly string[]).includes(sort.replace(/^-/, '')),
      `Sort by ${FILE_SORTS.join(', ')}; with a hyphen before it the other way round.`,
    ),
})
export type FileFilter = z.infer<typeof fileFilterSchema>

export const fileQuerySchema = fileFilterSchema.extend({
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(200),
})
export type FileQuery = z.infer<typeof fileQuerySchema>
