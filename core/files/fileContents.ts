import { z } from 'zod'
import { familyOf, opensInBrowser } from './mediaType'

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
    entries: z.array(z.object({ name: z.string(), size: z.number(), locked: z.boolean() })),
    cut: z.boolean(),
  }),
])
export type Contents = z.infer<typeof contentsSchema>

/** How a file is looked at. */
export type View = 'pages' | 'picture' | 'sound' | 'film' | 'contents' | 'none'

const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document'
const TABLES = /^text\/(?:csv|tab-separated-values)$|spreadsheetml\.sheet$|opendocument\.spreadsheet$/
/** HTML too: as it is written, since showing it would run it. */
const TEXTS = /^text\/|\/json$|\/xml$|\/(?:x-)?yaml$/
const ZIPS = /^application\/(?:x-)?zip(?:-compressed)?$/

/** What the view shows for a media type. */
export function viewOf(mediaType: string): View {
  if (mediaType === 'application/pdf') return 'pages'
  const family = familyOf(mediaType)
  if (family === 'picture') return /^image\/(?:png|jpeg|gif|webp|avif|svg\+xml)$/.test(mediaType) ? 'picture' : 'none'
  if ((family === 'sound' || family === 'film') && opensInBrowser(mediaType)) return family
  return contentsKind(mediaType) ? 'contents' : 'none'
}

/** Which kind of contents a media type gives; none where it cannot be shown. */
export function contentsKind(mediaType: string): 'markdown' | 'document' | 'sheets' | 'entries' | 'text' | undefined {
  if (mediaType === WORD) return 'document'
  if (TABLES.test(mediaType)) return 'sheets'
  if (ZIPS.test(mediaType)) return 'entries'
  if (mediaType === 'text/markdown') return 'markdown'
  return TEXTS.test(mediaType) ? 'text' : undefined
}
