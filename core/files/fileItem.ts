import { z } from 'zod'
import { countedInAddressSchema, countedSchema } from '../counted'
import { cleanFileName } from './fileName'
import { writtenHandleSchema } from './handle'
import { passageSchema } from '../find/passage'
import { saidGateSchema } from '../gate/gate'
import { saidSchema } from '../see/mayBeSeen'
import { placementKindSchema } from '../page/schema'
import { familySchema } from './mediaType'

/** What was read out of a file's bytes, as far as its kind has it. */
export const factsSchema = z.object({
  pages: z.number().optional(),
  /** as the document calls itself */
  documentTitle: z.string().optional(),
  author: z.string().optional(),
  /** the document's own date, ISO 8601 */
  dated: z.string().optional(),
  /** of text that is not in UTF-8: a name of the Encoding Standard (WHATWG) */
  charset: z.string().optional(),
  /** pixels */
  width: z.number().optional(),
  height: z.number().optional(),
  /** pixels of the picture of its first page */
  cover: z.object({ width: z.number(), height: z.number() }).optional(),
  seconds: z.number().optional(),
  sheets: z.number().optional(),
  /** files in an archive */
  entries: z.number().optional(),
  /** it is a BagIt bag (RFC 8493) */
  bag: z.boolean().optional(),
  /** its pages were drawn by an office program, and are kept beside it */
  drawn: z.boolean().optional(),
  /** it has pages and no words on any: pictures of pages */
  scanned: z.boolean().optional(),
  /** its first words, where it has no picture */
  excerpt: z.string().optional(),
})
export type Facts = z.infer<typeof factsSchema>

/** `ready`: there is a picture of the first page */
export const previewStateSchema = z.enum(['waiting', 'ready', 'none', 'failed'])
export type PreviewState = z.infer<typeof previewStateSchema>
export const readingStateSchema = z.enum(['waiting', 'done', 'failed'])
export type ReadingState = z.infer<typeof readingStateSchema>

/** A file as the desk's API gives it. */
export const fileItemSchema = z.object({
  id: z.string(),
  title: z.string(),
  handle: z.string(),
  /** the folder it lies in; null at the top of the library */
  folder: z.string().nullable(),
  /** number of the current edition; the fields below are its own */
  edition: z.number(),
  fileName: z.string(),
  mediaType: z.string(),
  /** short name of the type, such as PDF */
  tag: z.string(),
  family: familySchema,
  /** bytes */
  size: z.number(),
  /** it is composed of other files; its bytes are stored nowhere */
  bundle: z.boolean(),
  /** empty for a bundle */
  sha256: z.string(),
  /** eight hexadecimal digits */
  crc32: z.string(),
  facts: factsSchema,
  /** the picture of its first page */
  preview: previewStateSchema,
  /** pixels of what it was given to be shown with */
  pictureExtent: z.object({ width: z.number(), height: z.number() }).nullable(),
  /** whether its words and facts are known yet */
  reading: readingStateSchema,
  /** why it could not be read */
  readingError: z.string().nullable(),
  description: z.string(),
  tags: z.array(z.string()),
  /** a picture of the library that stands for the file */
  picture: z.string().nullable(),
  /** visitors may look at it before they take it; null where what is said of its folder holds */
  see: saidSchema,
  /** the gate it stands behind; null where what is said of its folder holds */
  gate: saidGateSchema,
  /** of a bundle: the gates its contents stand behind */
  gates: z.array(z.string()),
  /** place in its folder's own order */
  position: z.number(),
  /** ISO 8601 */
  created: z.string(),
  changed: z.string(),
  deleted: z.string().nullable(),
  /** what the owner should know, a sentence each */
  remarks: z.array(z.string()),
  /** buttons and links that lead to it, drafts and live pages taken together */
  uses: z.number(),
  /** completed downloads */
  downloads: z.number(),
  /** it has an edition newer than the current one */
  waits: z.boolean(),
  /** its current edition was withdrawn: visitors do not get it */
  withdrawn: z.boolean(),
})
export type FileItem = z.infer<typeof fileItemSchema>

/** A file in a list, with what it was found by. */
export const foundFileSchema = fileItemSchema.extend({
  /** downloads in the days by which the list is ordered, where it is */
  taken: z.number().optional(),
  match: z
    .discriminatedUnion('by', [
      z.object({ by: z.literal('slip') }),
      z.object({
        by: z.literal('inside'),
        /** such as "Page 3"; empty where the document has no parts */ part: z.string(),
        passage: passageSchema,
      }),
    ])
    .optional(),
})
export type FoundFile = z.infer<typeof foundFileSchema>

/** One set of bytes of a file. */
export const editionItemSchema = z.object({
  number: z.number(),
  fileName: z.string(),
  mediaType: z.string(),
  size: z.number(),
  sha256: z.string(),
  note: z.string(),
  /** visitors get it by its number, for ever */
  pinned: z.boolean(),
  /** visitors no longer get it */
  withdrawn: z.boolean(),
  /** e-mail of who put it in; empty where that is not known */
  by: z.string(),
  /** ISO 8601 */
  created: z.string(),
})
export type EditionItem = z.infer<typeof editionItemSchema>

/** What an owner can say of an edition, and who gets it. */
export const editionChangeSchema = z
  .object({
    note: z.string().trim().max(500, 'Keep the note to 500 characters.'),
    pinned: z.boolean(),
    withdrawn: z.boolean(),
  })
  .partial()
export type EditionChange = z.infer<typeof editionChangeSchema>

/**
 * What a file is to a page: it is led to, or a picture behind the words of a button or of all that wear a look; or a signpost points at
 * it.
 */
const useKindSchema = z.enum([...placementKindSchema.options, 'fill', 'look', 'signpost', 'entry'])
export type UseKind = z.infer<typeof useKindSchema>

/** One place that leans on a file, or leads to something else. */
export const useSchema = z.object({
  /** the file that is used; null where it is something else */
  fileId: z.string().nullable(),
  folderId: z.string().nullable(),
  /** null for a look or a signpost, which are on no page */
  pageId: z.string().nullable(),
  pageTitle: z.string(),
  placement: z.string(),
  kind: useKindSchema,
  label: z.string(),
  /** the heading it stands under; empty above the first one */
  section: z.string(),
  /** what the signpost is called that it leads there by; null where it leads there straight */
  by: z.string().nullable(),
  draft: z.boolean(),
  live: z.boolean(),
})
export type Use = z.infer<typeof useSchema>

const tagSchema = z.string().trim().min(1).max(60, 'Keep a tag to 60 characters.')

/** What an owner can say of a file. */
export const descriptionSchemas = {
  description: z.string().trim().max(2000, 'Keep the description to 2000 characters.').optional(),
  tags: z
    .array(tagSchema)
    .max(50, 'Keep it to 50 tags.')
    .transform(tags => [...new Set(tags)])
    .optional(),
  /** a picture of the library, or none */
  picture: z.string().max(40).nullable().optional(),
  gate: saidGateSchema.optional(),
}

export const fileChangeSchema = z.object({
  title: z.string().trim().min(1, 'Give the file a title.').max(200, 'Keep the title to 200 characters.').optional(),
  handle: writtenHandleSchema.optional(),
  /** the name its current edition is saved under */
  fileName: z.string().max(400, 'Keep the name to 255 bytes.').transform(cleanFileName).optional(),
  see: saidSchema.optional(),
  ...descriptionSchemas,
})
export type FileChange = z.infer<typeof fileChangeSchema>

/** What to do with the places that use a file when it is deleted. */
export const deleteFileSchema = z.object({
  /** put another file in its place */
  replaceBy: z.string().max(40).optional(),
  /** take its buttons off and leave its links as plain words */
  takeOff: z.boolean().optional(),
  /** delete all the same */
  despite: z.boolean().optional(),
})
export type DeleteFile = z.infer<typeof deleteFileSchema>

export const showEditionSchema = z.object({ number: countedSchema })
export const previewQuerySchema = z.object({ edition: countedInAddressSchema.optional() })
/** An edition in an address. */
export const editionPathSchema = z.object({ id: z.string(), number: countedInAddressSchema })
