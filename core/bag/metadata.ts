import { z } from 'zod'
import { positionSchema } from '../counted'
import { bundleEntrySchema, bundleGatedSchema } from '../bundle/bundleEntry'
import { handleSchema } from '../files/handle'
import { MARKS } from '../folders/folderItem'
import { readSeveral } from '../several'

/** Where in a bag what checksums do not say is written down. */
export const FILES_CSV = 'metadata/files.csv'
export const FOLDERS_CSV = 'metadata/folders.csv'
export const BUNDLES_JSON = 'metadata/bundles.json'

const list = z.string().transform(text => readSeveral(text, '|'))
const yes = z.string().transform(text => text === 'yes')
/** What is said of looking or finding; empty where what is said further up holds. */
const said = z.enum(['', 'yes', 'no']).transform(text => (text ? text === 'yes' : null))
/** The name of the gate it stands behind; empty where what is said further up holds. */
const gate = z.string().max(200)
const moment = z.iso.datetime({ offset: true })
const whole = z
  .string()
  .regex(/^\d{1,9}$/)
  .transform(Number)

/** One edition of a file, a row each; what is said of the file stands in every one of its rows. */
export const fileRowSchema = z.object({
  path: z.string().min(1),
  handle: handleSchema,
  former_handles: list,
  title: z.string().trim().min(1).max(200),
  description: z.string().max(2000),
  tags: list,
  /** folders from the top, with `/` between them; empty at the top */
  folder: z.string().max(8000),
  position: whole,
  /** the handle of the picture that stands for it */
  picture: z.string().max(80),
  edition: whole.pipe(z.number().min(1)),
  current: yes,
  pinned: yes,
  // Bags of earlier versions have none of these columns.
  withdrawn: yes.default(false),
  by: z.string().max(254).default(''),
  gate: gate.default(''),
  see: said.default(null),
  note: z.string().max(2000),
  file_name: z.string().min(1).max(400),
  edition_created: moment,
  created: moment,
  changed: moment,
})
export type FileRow = z.output<typeof fileRowSchema>
/** As it stands in the CSV. */
export type FileLine = Record<keyof FileRow, string>
export const FILE_COLUMNS = fileRowSchema.keyof().options

export const folderRowSchema = z.object({
  path: z.string().min(1).max(8000),
  mark: z.union([z.literal('').transform(() => null), z.enum(MARKS)]),
  description: z.string().max(2000),
  own_order: yes,
  created: moment,
  gate: gate.default(''),
  see: said.default(null),
  found: said.default(null),
})
export type FolderRow = z.output<typeof folderRowSchema>
export type FolderLine = Record<keyof FolderRow, string>
export const FOLDER_COLUMNS = folderRowSchema.keyof().options

/** Bundles: their files by handle, their folders by path. */
export const bundlesSchema = z.array(
  z.object({
    handle: handleSchema,
    formerHandles: z.array(handleSchema),
    title: z.string().trim().min(1).max(200),
    description: z.string().max(2000),
    tags: z.array(z.string().max(60)),
    folder: z.string(),
    position: positionSchema,
    fileName: z.string().min(1).max(400),
    created: moment,
    changed: moment,
    composed: moment,
    gate: gate.default(''),
    see: z.boolean().nullable().default(null),
    gated: bundleGatedSchema.default('behind'),
    entries: z.array(bundleEntrySchema.and(z.object({ handle: z.string().optional(), path: z.string().optional() }))),
  }),
)
export type BundleRow = z.output<typeof bundlesSchema>[number]
