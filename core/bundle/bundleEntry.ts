import { z } from 'zod'
import { countedSchema } from '../counted'
import { cleanFileName } from '../files/fileName'
import type { Selection } from '../files/selection'
import { innerPath } from '../files/innerPath'
import { cleanFolderName } from '../folders/folderItem'
import { fileItemSchema } from '../files/fileItem'

/** Entries an owner puts into one bundle; folders among them may hold any number of files. */
const MOST_ENTRIES = 10_000
const LONGEST_TEXT = 100_000

/** A path of folders, such as `Sheets/2026`; empty for the top of the zip. */
const withinSchema = z
  .string()
  .max(400, 'Keep the folder to 400 characters.')
  .transform((path, context) => {
    if (!path.trim()) return ''
    const inner = innerPath(`${path}/file`)
    if (!('refused' in inner)) return inner.folders.join('/')
    context.addIssue({ code: 'custom', message: inner.refused })
    return z.NEVER
  })
const fileName = z.string().max(400, 'Keep the name to 255 bytes.').transform(cleanFileName)

const common = {
  /** tells one entry from another */
  id: z.string().regex(/^[a-z0-9]{6,16}$/),
  /** the folder of the zip it lies in */
  within: withinSchema.default(''),
}

/** What an owner put into a bundle, in their order. */
export const bundleEntrySchema = z.discriminatedUnion('kind', [
  /** the file as it is when the bundle is downloaded; under its own name where none is given */
  z.object({ ...common, kind: z.literal('file'), file: z.string().max(40), name: fileName.nullable().default(null) }),
  /** all that lies in a folder and below it, always; an empty name leaves its own out of the paths */
  z.object({
    ...common,
    kind: z.literal('folder'),
    folder: z.string().max(40),
    name: z.string().max(400).transform(cleanFolderName).nullable().default(null),
  }),
  /** the files that entries of a catalogue which visitors see hold in a field, always; an empty name leaves the field's out of the paths */
  z.object({
    ...common,
    kind: z.literal('field'),
    catalogue: z.string().max(40),
    field: z.string().max(16),
    name: z.string().max(400).transform(cleanFolderName).nullable().default(null),
  }),
  /** a text that is written for the bundle, such as a read-me or a licence */
  z.object({
    ...common,
    kind: z.literal('text'),
    name: fileName,
    body: z.string().max(LONGEST_TEXT, `Keep the text to ${LONGEST_TEXT.toLocaleString('en')} characters.`),
  }),
])
export type BundleEntry = z.infer<typeof bundleEntrySchema>

/** The file or folder of the library an entry brings; undefined for a text. */
export const broughtBy = (entry: BundleEntry): string | undefined =>
  entry.kind === 'file' ? entry.file : entry.kind === 'folder' ? entry.folder : undefined

/** All that entries bring from the library. */
export const broughtInto = (entries: readonly BundleEntry[]): Selection => ({
  files: entries.flatMap(entry => (entry.kind === 'file' ? entry.file : [])),
  folders: entries.flatMap(entry => (entry.kind === 'folder' ? entry.folder : [])),
})

export const bundleEntriesSchema = z
  .array(bundleEntrySchema)
  .max(MOST_ENTRIES, `Keep a bundle to ${MOST_ENTRIES.toLocaleString('en')} entries; put whole folders in instead.`)

/** What becomes of files that stand behind gates: the bundle stands behind all of them, or is without those files. */
export const bundleGatedSchema = z.enum(['behind', 'without'])
export type BundleGated = z.infer<typeof bundleGatedSchema>

export const newBundleSchema = z.object({
  title: z.string().trim().min(1, 'Give the bundle a title.').max(200, 'Keep the title to 200 characters.'),
  folder: z.string().max(40).nullable().default(null),
  files: z.array(z.string().max(40)).max(MOST_ENTRIES).default([]),
  folders: z.array(z.string().max(40)).max(MOST_ENTRIES).default([]),
})
export type NewBundle = z.infer<typeof newBundleSchema>

export const bundleChangeSchema = z.object({
  entries: bundleEntriesSchema,
  /** the revision the change was made from */
  revision: countedSchema,
  gated: bundleGatedSchema.optional(),
})
export type BundleChange = z.infer<typeof bundleChangeSchema>

/** A bundle as the desk's API gives it. */
export const bundleDetailsSchema = z.object({
  file: fileItemSchema,
  revision: z.number(),
  gated: bundleGatedSchema,
  /** files in it that stand behind gates it does not stand behind itself: they decide about it, or are left out */
  behind: z.number(),
  /** files in it that are for the desk alone: they are left out, whatever is said */
  closed: z.number(),
  entries: z.array(bundleEntrySchema),
  /** what each entry comes to now, by its identity */
  now: z.record(
    z.string(),
    z.object({
      /** its file or folder is in the bin or gone */ gone: z.boolean(),
      files: z.number(),
      /** bytes */ size: z.number(),
      /** as it is called in the zip, or the folder its files are in */ path: z.string(),
      /** the file's or folder's own name */ own: z.string(),
    }),
  ),
  /** what is in the zip as it would be sent now; the first of them where there are very many */
  members: z.array(z.object({ path: z.string(), /** bytes */ size: z.number() })),
  total: z.number(),
})
export type BundleDetails = z.infer<typeof bundleDetailsSchema>
