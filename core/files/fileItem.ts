import { z } from 'zod'
import { cleanFileName } from './fileName'
import { handleSchema } from './handle'
import type { Passage } from '../find/passage'
import type { PlacementKind } from '../page/targets'
import type { Family } from './mediaType'

/** What was read out of a file's bytes, as far as its kind has it. */
export interface Facts {
  pages?: number
  /** as the document calls itself */
  documentTitle?: string
  author?: string
  /** the document's own date, ISO 8601 */
  dated?: string
  /** pixels */
  width?: number
  height?: number
  /** pixels of the picture of its first page */
  cover?: { width: number; height: number }
  seconds?: number
  sheets?: number
  /** files in an archive */
  entries?: number
  /** it is a BagIt bag (RFC 8493) */
  bag?: boolean
  /** its first words, where it has no picture */
  excerpt?: string
}

/** `ready`: there is a picture of the first page */
export type PreviewState = 'waiting' | 'ready' | 'none' | 'failed'
export type ReadingState = 'waiting' | 'done' | 'failed'

/** A file as the desk's API gives it. */
export interface FileItem {
  id: string
  title: string
  handle: string
  /** the folder it lies in; null at the top of the library */
  folder: string | null
  /** number of the current edition; the fields below are its own */
  edition: number
  fileName: string
  mediaType: string
  /** short name of the type, such as PDF */
  tag: string
  family: Family
  /** bytes */
  size: number
  /** it is composed of other files; its bytes are stored nowhere */
  bundle: boolean
  /** empty for a bundle */
  sha256: string
  /** eight hexadecimal digits */
  crc32: string
  facts: Facts
  /** the picture of its first page */
  preview: PreviewState
  /** pixels of what it was given to be shown with */
  pictureExtent: { width: number; height: number } | null
  /** whether its words and facts are known yet */
  reading: ReadingState
  /** why it could not be read */
  readingError: string | null
  description: string
  tags: string[]
  /** a picture of the library that stands for the file */
  picture: string | null
  /** place in its folder's own order */
  position: number
  /** ISO 8601 */
  created: string
  changed: string
  deleted: string | null
  /** what the owner should know, a sentence each */
  remarks: string[]
  /** buttons and links that lead to it, drafts and live pages taken together */
  uses: number
  /** completed downloads */
  downloads: number
  /** it has an edition newer than the current one */
  waits: boolean
  /** its current edition was withdrawn: visitors do not get it */
  withdrawn: boolean
}

/** A file in a list, with what it was found by. */
export interface FoundFile extends FileItem {
  match?: { by: 'slip' } | { by: 'inside'; /** such as "Page 3"; empty where the document has no parts */ part: string; passage: Passage }
}

/** One set of bytes of a file. */
export interface EditionItem {
  number: number
  fileName: string
  mediaType: string
  size: number
  sha256: string
  note: string
  /** visitors get it by its number, for ever */
  pinned: boolean
  /** visitors no longer get it */
  withdrawn: boolean
  /** e-mail of who put it in; empty where that is not known */
  by: string
  /** ISO 8601 */
  created: string
}

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
export type UseKind = PlacementKind | 'fill' | 'look' | 'signpost'

/** One place that leans on a file, or leads to something else. */
export interface Use {
  /** the file that is used; null where it is something else */
  fileId: string | null
  folderId: string | null
  /** null for a look or a signpost, which are on no page */
  pageId: string | null
  pageTitle: string
  placement: string
  kind: UseKind
  label: string
  /** the heading it stands under; empty above the first one */
  section: string
  /** what the signpost is called that it leads there by; null where it leads there straight */
  by: string | null
  draft: boolean
  live: boolean
}

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
}

export const fileChangeSchema = z.object({
  title: z.string().trim().min(1, 'Give the file a title.').max(200, 'Keep the title to 200 characters.').optional(),
  handle: handleSchema.optional(),
  /** the name its current edition is saved under */
  fileName: z.string().max(400, 'Keep the name to 255 bytes.').transform(cleanFileName).optional(),
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

export const showEditionSchema = z.object({ number: z.number().int().min(1) })
const editionNumberSchema = z.coerce.number().int().min(1)
export const previewQuerySchema = z.object({ edition: editionNumberSchema.optional() })
/** An edition in an address. */
export const editionPathSchema = z.object({ id: z.string(), number: editionNumberSchema })
