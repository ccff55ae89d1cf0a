import type { Contents } from '../files/fileContents'
import type { Passage } from '../find/passage'
import type { TargetFacts } from '../page/placeholders'

/** Where on a page something stands, in shares of its width and height from the upper left corner. */
export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/** One page of a document, as it is looked at. */
export interface SeenPage {
  kind: 'page'
  /** counted from 1 */
  number: number
  count: number
  /** pixels of its picture; left out where it cannot be drawn */
  picture?: { width: number; height: number }
  /** where words that were looked for stand on it */
  marks: Box[]
  /** all words on it; empty where there are none to be read out */
  words: string
}

/** What of a file is shown. */
export type Sight =
  | SeenPage
  | { kind: 'picture' | 'sound' | 'film' }
  | { kind: 'contents'; contents: Contents }
  /** there is no view for it */
  | { kind: 'none' }

/** A part of a file in which all words stand that were looked for. */
export interface FoundPart {
  /** such as “Page 3”; empty where the file has no parts */
  part: string
  /** the page, where the part is one */
  page?: number
  passage: Passage
}

/** All that a look at a file is drawn from. */
export interface SeeFacts {
  file: TargetFacts
  /** folded beginnings of words that are marked */
  terms: string[]
  sight: Sight
  found: { parts: FoundPart[]; /** there are more */ cut: boolean }
  /** editions beside the current one that visitors may have, the newest first */
  editions: { number: number; /** ISO 8601 */ created: string }[]
  /** what else visitors may find in its folder */
  beside?: { folder: string; files: TargetFacts[] }
}
