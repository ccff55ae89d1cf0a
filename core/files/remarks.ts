import type { Trouble } from '../trust/trustReports'
import { UNKNOWN_TYPE, familyOf, typeFromName, typeTag } from './mediaType'

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
  /^(?:application|text)\/(?:x-)?(?:xml|rtf|json|javascript|plain|csv|markdown|x?html|html|yaml|tab-separated-values)|\+(?:xml|json)$/,
  /^(?:application\/(?:vnd\.ms-|msword|x-cfb|x-msi)|application\/x-ole)/,
]

function alike(a: string, b: string): boolean {
  return a === b || ALIKE.some(group => group.test(a) && group.test(b))
}

/** What the owner should know about an edition, a sentence each; empty where all is well. */
export function remarksOn({ fileName, mediaType, size, trouble }: EditionFacts): string[] {
  if (trouble)
    return [
      `The bytes of this file are ${trouble}: visitors do not get it. Drop the same file here again, or mend it from a backup (Setup, Verify).`,
    ]
  if (size === 0) return ['This file is empty (0 bytes): a visitor would get nothing. Export it again and drop it here.']
  const promised = typeFromName(fileName)
  if (promised === UNKNOWN_TYPE || alike(promised, mediaType)) return []
  if (mediaType === UNKNOWN_TYPE && familyOf(promised) === 'other') return []
  const found = mediaType === UNKNOWN_TYPE ? 'does not hold one' : `holds ${typeTag(mediaType)}`
  return [`The name says ${typeTag(promised)}, but the file ${found}. It is sent as what it holds; check that it is the right file.`]
}
