import { typeTag } from '../files/mediaType'
import type { Behind } from '../gate/asks'
import type { GateKind } from '../gate/gate'
import type { FileItem } from '../files/fileItem'
import type { Speech } from '../language/speech'

/** What a page needs to know of the file a placement leads to. */
export interface TargetFacts {
  id: string
  handle: string
  title: string
  fileName: string
  mediaType: string
  /** bytes */
  size: number
  /** pages of a document, where known */
  pages?: number
  description: string
  tags: string[]
  /** identity of the folder it lies in */
  folder: string | null
  edition: number
  /** when this edition came in, ISO 8601 */
  changed: string
  /** counted so far */
  downloads: number
  /** what shows it: itself where it is a picture, one that was given to it, or its first page */
  picture?: FilePicture
  /** visitors may look at it before they take it */
  see?: boolean
  /** what is asked before it is given: then nothing is known of it but what is said here of every file that stands behind a gate */
  asks?: GateKind
}

export interface FilePicture {
  /** another one for other bytes; empty where that is not known */
  version: string
  /** pixels, where known */
  width?: number
  height?: number
}

function pictureOf({
  family,
  picture,
  pictureExtent,
  preview,
  sha256,
  facts: { width, height, cover },
}: FileItem): FilePicture | undefined {
  const version = sha256.slice(0, 8)
  if (family === 'picture') return width && height ? { version, width, height } : undefined
  if (picture) return { version: '', ...pictureExtent }
  return preview === 'ready' ? { version, ...cover } : undefined
}

/**
 * What a page needs to know of a file.
 *
 * @param see visitors may look at it before they take it
 * @param behind it stands behind gates that whoever reads the page has not passed: no page or picture is made with what is in it
 */
export const targetFacts = (file: FileItem, see = false, behind?: Behind): TargetFacts => {
  const { id, handle, title, fileName, mediaType, size, facts, description, tags, folder, edition, changed, downloads } = file
  const common = { id, handle, title, mediaType, description, tags, folder, changed }
  if (behind) {
    const picture = behind.showsFirst ? pictureOf(file) : undefined
    return { ...common, fileName: '', size: 0, edition: 0, downloads: 0, picture, see: false, asks: behind.asks }
  }
  return {
    ...common,
    fileName,
    size,
    edition,
    downloads,
    pages: facts.pages,
    picture: pictureOf(file),
    see,
  }
}

const PLACEHOLDERS: Record<string, (facts: TargetFacts, speech: Speech) => string> = {
  type: facts => typeTag(facts.mediaType),
  size: (facts, speech) => speech.size(facts.size),
  pages: ({ pages }, speech) => (pages === undefined ? '' : speech.say('pageCount', { count: pages })),
  name: facts => facts.fileName,
  date: (facts, speech) => speech.day(facts.changed),
  edition: (facts, speech) => speech.say('edition', { number: facts.edition }),
  downloads: (facts, speech) => speech.downloads(facts.downloads),
}

/** What is said of a file that stands behind a gate. */
const SAID_BEHIND = ['type', 'date', 'tags']

/** Whether a fact of a file may be said on a page: of one behind a gate hardly any. */
export const mayBeSaid = (fact: string, { asks }: Pick<TargetFacts, 'asks'>): boolean => !asks || SAID_BEHIND.includes(fact)

/** Whether what a page says changes with every download. */
export const tellsDownloads = (text: string): boolean => text.includes('{downloads}')

/** The placeholders a note may hold. */
export const PLACEHOLDER_NAMES = Object.keys(PLACEHOLDERS)

/** What stands in braces like a placeholder and is none, each once. */
export const strayPlaceholders = (text: string): string[] => [
  ...new Set([...text.matchAll(/\{(\w+)\}/g)].flatMap(([whole, name]) => (Object.hasOwn(PLACEHOLDERS, name!) ? [] : [whole]))),
]

/**
 * Fills the placeholders that `PLACEHOLDER_NAMES` lists. One that gives nothing goes with the comma before
 * it; one that does not exist is left as written, so that its owner sees it.
 *
 * @param facts of the file; null where there is none to be said anything of, undefined where it is not known yet
 */
export function fillPlaceholders(text: string, facts: TargetFacts | null | undefined, speech: Speech): string {
  const filled = text.replace(/(,\s*)?\{(\w+)\}/g, (whole, comma: string | undefined, name: string) => {
    const fill = Object.hasOwn(PLACEHOLDERS, name) ? PLACEHOLDERS[name] : undefined
    if (!fill || facts === undefined) return whole
    const value = facts && mayBeSaid(name, facts) && fill(facts, speech)
    return value ? (comma ?? '') + value : ''
  })
  return filled.replace(/^,\s*/, '')
}
