import { Mime } from 'mime'
import other from 'mime/types/other.js'
import standard from 'mime/types/standard.js'
import { z } from 'zod'

/** What a file is, broadly; each family has its own notch on the type tag. */
export const FAMILIES = ['document', 'sheet', 'slides', 'picture', 'sound', 'film', 'archive', 'other'] as const
export const familySchema = z.enum(FAMILIES)
export type Family = z.infer<typeof familySchema>

/** The type of bytes that say nothing about themselves (RFC 2046, section 4.5.1). */
export const UNKNOWN_TYPE = 'application/octet-stream'

/**
 * Types by names, from the IANA registry as `mime` packages it, with those that were registered since: names promise what bytes are found
 * to be (RFC 9639 flac, RFC 9559 Matroska, RFC 6350 vcard).
 */
const mime = new Mime(standard, other).define(
  {
    'audio/flac': ['flac'],
    'audio/aiff': ['aiff', 'aif', 'aifc'],
    'video/matroska': ['mkv'],
    'video/vnd.avi': ['avi'],
    'text/vcard': ['vcf', 'vcard'],
    'application/x-ndjson': ['jsonl', 'ndjson'],
    'application/gzip': ['gz', 'tgz'],
  },
  true,
)

/** What bytes are found to be, under other names than the registry's. */
const REGISTERED: Record<string, string> = {
  'image/x-icon': 'image/vnd.microsoft.icon',
  'audio/x-m4a': 'audio/mp4',
  'audio/x-ms-asf': 'audio/x-ms-wma',
  'application/vnd.ms-asf': 'video/x-ms-wmv',
  'application/x-rar-compressed': 'application/vnd.rar',
  'application/eps': 'application/postscript',
}

/** A media type as the registry has it, without what may stand behind it (RFC 9110, section 8.3.1). */
export function registeredType(mediaType: string): string {
  const type = mediaType.split(';')[0]!.trim()
  return REGISTERED[type] ?? type
}

/** The type a file name promises. */
export function typeFromName(fileName: string): string {
  return mime.getType(fileName) ?? UNKNOWN_TYPE
}

const SHEETS = /spreadsheet|ms-excel|text\/csv|tab-separated/
const SLIDES = /presentation|powerpoint/
const ZIP = /^application\/(?:x-)?zip(?:-compressed)?$/
const PACKED = /^application\/(?:(?:x-)?gzip|x-tar|x-7z-compressed|vnd\.rar|x-bzip2?|x-xz)$/
/** An archive in the format that Trough itself makes, and can unpack. */
export const isZip = (mediaType: string): boolean => ZIP.test(mediaType)
/** An archive of another kind, which can be looked into. */
export const isPacked = (mediaType: string): boolean => PACKED.test(mediaType)
const DOCUMENTS = /^application\/(?:pdf|msword|rtf|epub\+zip)$|wordprocessing|opendocument\.text|^text\//

/** The family of a media type. */
export function familyOf(mediaType: string): Family {
  if (SHEETS.test(mediaType)) return 'sheet'
  if (SLIDES.test(mediaType)) return 'slides'
  if (isZip(mediaType) || isPacked(mediaType)) return 'archive'
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
  'video/quicktime': 'MOV',
  'application/postscript': 'PS',
  'audio/ogg': 'OGG',
  'image/tiff': 'TIFF',
  'video/x-ms-asf': 'WMV',
  'message/rfc822': 'EML',
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
