import type { EditionItem, Facts, PreviewState } from '../files/fileItem'
import type { TextComparison } from './compareTexts'

/** An edition as it is held against another. */
export interface ComparedEdition extends EditionItem {
  tag: string
  facts: Facts
  preview: PreviewState
}

/** What speaks against letting an edition take over. */
export type Doubt = 'same-bytes' | 'other-type' | 'far-smaller' | 'little-in-common' | 'older'

/** The edition that visitors get, and one that is to take over. */
export interface Comparison {
  now: ComparedEdition
  next: ComparedEdition
  /** undefined while their words are not read yet, or where there are none in either */
  texts?: TextComparison
  /** words or pictures of one of them are still being read */
  reading: boolean
  doubts: Doubt[]
}
