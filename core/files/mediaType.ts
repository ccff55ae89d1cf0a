import mime from 'mime'
import { z } from 'zod'

/** What a file is, broadly; each family has its own notch on the type tag. */
export const FAMILIES = ['document', 'sheet', 'slides', 'picture', 'sound', 'film', 'archive', 'other'] as const
export const familySchema = z.enum(FAMILIES)
export type Family = z.infer<typeof familySchema>

/** The type of bytes that say nothing about themselves (RFC 2046, section 4.5.1). */
export const UNKNOWN_TYPE = 'application/octet-stream'

/** The type a file name promises, from the IANA registry as `mime` packages it. */
export function typeFromName(fileName: string): string {
  return mime.getType(fileName) ?? UNKNOWN_TYPE
}

const SHEETS = /spreadsheet|ms-excel|text\/csv|tab-separated/
const SLIDES = /presentation|powerpoint/
const ARCHIVES = /\/(?:x-)?(?:zip|gzip|x-tar|x-7z-compressed|vnd\.rar|x-bzip2|x-xz)(?:-compressed)?$/
const DOCUMENTS = /^application\/(?:pdf|msword|rtf|epub\+zip)$|wordprocessing|opendocument\.text|^text\//

/** The family of a media type. */
export function familyOf(mediaType: string): Family {
  if (SHEETS.test(mediaType)) return 'sheet'
  if (SLIDES.test(mediaType)) return 'slides'
  if (ARCHIVES.test(mediaType)) return 'archive'
  if (DOCUMENTS.test(mediaType)) return 'document'
  const [top] = mediaType.split('/')
  if (top === 'image') return 'picture'
  if (top === 'audio') return 'sound'
  if (top === 'video') return 'film'
  return 'other'
}

// Extensions whose registered favourite is not what people call the type.
const TAGS: Record<string, string> = {
  'image/jpeg': 'JPEG',
  'image/svg+xml': 'SVG',
  'audio/mpeg': 'MP3',
  'audio/mp4': 'M4A',
  'text/plain': 'TXT',
  'audio/wav': 'WAV',
  'audio/x-wav': 'WAV',
  'audio/vnd.wave': 'WAV',
  'text/markdown': 'MD',
}

/** The short name of a type as shown on tags and buttons: `PDF`, `DOCX`, `ZIP`. */
export function typeTag(mediaType: string): string {
  if (mediaType === UNKNOWN_TYPE) return 'FILE'
  return TAGS[mediaType] ?? (mime.getExtension(mediaType) ?? 'file').toUpperCase()
}

const INLINE = new Set([
  'application/pdf',
  'image/png',
  'image/jpeg',
  'image/gif',
  'image/webp',
  'image/avif',
  'text/plain',
  'audio/mpeg',
  'audio/mp4',
  'audio/ogg',
  'audio/wav',
  'audio/x-wav',
  'audio/vnd.wave',
  'audio/webm',
  'audio/flac',
  'audio/aac',
  'video/mp4',
  'video/webm',
  'video/ogg',
])

/** Whether a browser may show this type on the site's own origin; every other type is saved. */
export function opensInBrowser(mediaType: string): boolean {
  return INLINE.has(mediaType)
}

/** Whether a browser might run what is in this type: it is sent in a sandbox. */
export function isActiveContent(mediaType: string): boolean {
  return /html|xml|svg|javascript|ecmascript|x-shockwave/.test(mediaType) && !/openxmlformats/.test(mediaType)
}

/** The `Content-Type` to send; text says the encoding in which it was recognised. */
export function contentTypeHeader(mediaType: string, charset = 'utf-8'): string {
  return mediaType.startsWith('text/') ? `${mediaType}; charset=${charset}` : mediaType
}

/** Whether bytes of this type are text, which packs well on its way to a client. */
export function isTextLike(mediaType: string): boolean {
  return /^text\/|[/+](?:json|xml|yaml)$|\/(?:javascript|rtf)$/.test(mediaType)
}
