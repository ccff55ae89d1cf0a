import { fold, isUnspaced, wordsOf } from './fold'

/** What is left of a word without its ending, in some language. */
export type Stem = (word: string) => string

/** What a text has to hold: of each word that was asked for one of some beginnings, folded. */
export type Question = string[][]

/** Shorter, the beginning of a word says nothing of it. */
const LEAST = 3
const RUN = /[\p{L}\p{N}\p{M}]+/gu

/**
 * What was asked for, as what to look for: each word as it stands, and by its stem where one is known, so that “kilns” finds a kiln.
 *
 * @param stem of the language that is asked in
 */
export function questionFor(q: string, stem?: Stem): Question {
  const runs = q.normalize('NFC').toLowerCase().match(RUN) ?? []
  return runs.flatMap(run => {
    const words = wordsOf(run)
    // The last letter of a run is in the pair before it, and by itself stands everywhere.
    if (isUnspaced(run)) return words.filter((word, index) => !index || word.length > 1).map(word => [word])
    const bare = stem && words.length === 1 ? fold(stem(run)) : ''
    return words.map(word => (bare.length >= LEAST && bare !== word ? [word, bare] : [word]))
  })
}

/**
 * What was asked for, each word without its ending where it is one of a language: in names, where a piece may stand anywhere, that finds
 * every form of it.
 */
export const withoutEndings = (q: string, stem: Stem): string =>
  q
    .split(/\s+/)
    .map(word => {
      const bare = fold(stem(word.toLowerCase()))
      return bare.length >= LEAST && fold(word).startsWith(bare) ? bare : word
    })
    .join(' ')

/** All beginnings that are looked for, to be marked where they stand. */
export const termsOf = (question: Question): string[] => question.flat()

/** Whether finding it would say something: one letter begins half of all words. */
export const saysSomething = (question: Question): boolean => termsOf(question).some(term => term.length > 1 || isUnspaced(term))
