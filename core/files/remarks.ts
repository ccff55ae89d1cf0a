import type { Trouble } from '../trust/trustReports'
import { UNKNOWN_TYPE, typeFromName, typeTag } from './mediaType'

export interface EditionFacts {
  fileName: string
  /** read from the bytes */
  mediaType: string
  /** bytes */
  size: number
  /** what is wrong with the bytes as they lie in the store */
  trouble?: Trouble | null
}

// Names for the same thing, or containers whose bytes do not tell what is inside.
const ALIKE = [
  /^(?:audio|video)\/(?:x-|vnd\.)?(?:wave?|matroska|webm|ogg|mp4|3gpp|quicktime|opus|m4a)$/,
  /^application\/(?:zip|x-zip-compressed|java-archive|epub\+zip|vnd\.(?:openxmlformats|oasis).*)$/,
  /^application\/(?:x-)?(?:gzip|tar|x-gtar|x-tgz)$/,
  /^(?:audio\/x-ms-wma|video\/x-ms-(?:wmv|asf))$/,
  /^(?:application|text)\/(?:x-)?(?:xml|rtf|json|javascript|plain|csv|markdown|x?html|html|yaml|tab-separated-values)|\+(?:xml|json)$/,
  /^(?:application\/(?:vnd\.ms-|msword|x-cfb|x-msi)|application\/x-ole)/,
]

function alike(a: string, b: string): boolean {
  return a === b || ALIKE.some(group => group.test(a) && group.test(b))
}

/**
 * Types whose bytes always begin in a way that tells them: what does not is none. Others are known by their names alone, and nothing
 * speaks against a text or unknown bytes under such a name.
 */
const TOLD_BY_BYTES = new RegExp(
  [
    '^application/(?:pdf|postscript|rtf|gzip|x-7z-compressed|vnd\\.rar|x-xz|x-bzip2|epub\\+zip|x-tar|msword|vnd\\.ms-(?:excel|powerpoint))$',
    '^application/(?:x-)?zip|openxmlformats|opendocument',
    '^image/(?:png|jpeg|gif|webp|avif|tiff|bmp|heic|vnd\\.(?:microsoft\\.icon|adobe\\.photoshop))$',
    '^audio/(?:mp4|ogg|flac|aiff|wav|x-ms-wma)$',
    '^video/(?:mp4|quicktime|webm|ogg|matroska|vnd\\.avi|x-ms-wmv)$',
  ].join('|'),
)
/** Drawings that their program saves as PDF or PostScript under one name (common practice). */
const EITHER = /\.ai$/i

/** What the owner should know about an edition, a sentence each; empty where all is well. */
export function remarksOn({ fileName, mediaType, size, trouble }: EditionFacts): string[] {
  if (trouble)
    return [
      `The bytes of this file are ${trouble}: visitors do not get it. Drop the same file here again, or mend it from a backup (Setup, Verify).`,
    ]
  if (size === 0) return ['This file is empty (0 bytes): a visitor would get nothing. Export it again and drop it here.']
  const promised = typeFromName(fileName)
  if (promised === UNKNOWN_TYPE || alike(promised, mediaType)) return []
  if (EITHER.test(fileName) && mediaType === 'application/pdf') return []
  if ((mediaType === UNKNOWN_TYPE || mediaType === 'text/plain') && !TOLD_BY_BYTES.test(promised)) return []
  const found = mediaType === UNKNOWN_TYPE ? 'does not hold one' : `holds ${typeTag(mediaType)}`
  return [`The name says ${typeTag(promised)}, but the file ${found}. It is sent as what it holds; check that it is the right file.`]
}
