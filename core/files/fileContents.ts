import { z } from 'zod'
import type { FileItem } from './fileItem'
import { familyOf, isPacked, isZip, opensInBrowser } from './mediaType'

export const sheetSchema = z.object({
  name: z.string(),
  rows: z.array(z.array(z.string())),
  /** there are more rows */ cut: z.boolean(),
})
export type Sheet = z.infer<typeof sheetSchema>

/** What is in a file, ready to be shown. */
export const contentsSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('text'), text: z.string(), cut: z.boolean() }),
  z.object({ kind: z.literal('document'), html: z.string() }),
  /** the words of a file that has no other view: slides, chapters, or all of it without a name */
  z.object({ kind: z.literal('parts'), parts: z.array(z.object({ name: z.string(), text: z.string() })), cut: z.boolean() }),
  z.object({ kind: z.literal('sheets'), sheets: z.array(sheetSchema) }),
  z.object({
    kind: z.literal('entries'),
    entries: z.array(
      z.object({
        name: z.string(),
        /** bytes; left out where the archive does not say */ size: z.number().optional(),
        locked: z.boolean(),
      }),
    ),
    cut: z.boolean(),
  }),
])
export type Contents = z.infer<typeof contentsSchema>

/** How a file is looked at. */
export type View = 'pages' | 'picture' | 'sound' | 'film' | 'contents' | 'none'

const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document'
const TABLES = /^text\/(?:csv|tab-separated-values)$|spreadsheetml\.sheet$|opendocument\.spreadsheet$|\/vnd\.ms-excel$/
/** HTML too: as it is written, since showing it would run it. */
const TEXTS = /^text\/(?!rtf$)|^message\/rfc822$|\/json$|\/xml$|\/(?:x-)?yaml$/
/** Pictures that are drawn, whatever browsers can show of them. */
const PICTURES = /^image\/(?:png|jpeg|gif|webp|avif|svg\+xml|tiff|bmp|hei[cf])$/

/** A file whose pages can be drawn one by one. */
export const hasPages = ({ mediaType, facts }: Pick<FileItem, 'mediaType' | 'facts'>): boolean =>
  mediaType === 'application/pdf' || !!facts.drawn

/** What the view of a file shows. */
export function viewOf(file: Pick<FileItem, 'mediaType' | 'facts'>): View {
  const { mediaType } = file
  if (hasPages(file)) return 'pages'
  const family = familyOf(mediaType)
  if (family === 'picture') return PICTURES.test(mediaType) ? 'picture' : 'none'
  if ((family === 'sound' || family === 'film') && opensInBrowser(mediaType)) return family
  return contentsKind(mediaType) ? 'contents' : 'none'
}

/** Which kind of contents a media type gives; none where it cannot be shown. */
export function contentsKind(mediaType: string): 'markdown' | 'document' | 'sheets' | 'entries' | 'text' | undefined {
  if (mediaType === WORD) return 'document'
  if (TABLES.test(mediaType)) return 'sheets'
  if (isZip(mediaType) || isPacked(mediaType)) return 'entries'
  if (mediaType === 'text/markdown') return 'markdown'
  return TEXTS.test(mediaType) ? 'text' : undefined
}
