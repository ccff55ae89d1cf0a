import { z } from 'zod'
import { splitExtension } from '../files/fileName'
import { subjectOf } from '../files/nameAdvice'
import { wordsOf } from '../find/fold'
import { targetSchema, type Target } from '../page/schema'

/** What an old address could lead to, with the names it goes by. */
export interface Candidate {
  target: Target
  title: string
  names: string[]
  /** of its file name, with the dot; empty where it has none */ ending: string
  /** of those that have as much in common the one that weighs most is meant */ weight: number
}

export const suggestionSchema = z.object({
  target: targetSchema,
  title: z.string(),
  /** share of the words that are the same, 0 to 1 */ likeness: z.number(),
})
export type Suggestion = z.infer<typeof suggestionSchema>

/** Below this they have too little in common. */
const LEAST = 0.5

/** The words that say what it is: no date, no "final", no ending. */
const subjectWords = (name: string): string[] => [...new Set(wordsOf(subjectOf(name).replaceAll('-', ' ')))]

const endingOf = (name: string) => splitExtension(name)[1].toLowerCase()

function lastName(path: string): string {
  const [bare] = path.split('?') as [string]
  const part = bare.split('/').filter(Boolean).at(-1) ?? ''
  try {
    return decodeURIComponent(part)
  } catch {
    return part
  }
}

/** Two times what they share, of all they have (Dice's coefficient). */
const likeness = (one: readonly string[], other: readonly string[]): number =>
  one.length && other.length ? (2 * one.filter(word => other.includes(word)).length) / (one.length + other.length) : 0

/** Finds what took the place of old addresses by the names in them. */
export class Suggester {
  readonly #byWord = new Map<string, Set<number>>()
  readonly #candidates: (Candidate & { words: string[][] })[]

  constructor(candidates: Candidate[]) {
    this.#candidates = candidates.map(candidate => ({ ...candidate, words: candidate.names.map(subjectWords) }))
    for (const [index, { words }] of this.#candidates.entries()) {
      for (const word of words.flat()) this.#byWord.set(word, (this.#byWord.get(word) ?? new Set()).add(index))
    }
  }

  /** The best there is; undefined where nothing has enough in common, or two have as much and weigh the same. */
  suggest(path: string): Suggestion | undefined {
    const name = lastName(path)
    const words = subjectWords(name)
    const ending = endingOf(name)
    const found = [...new Set(words.flatMap(word => [...(this.#byWord.get(word) ?? [])]))]
      .map((index): Suggestion & { weight: number } => {
        const { target, title, words: named, ending: own, weight } = this.#candidates[index]!
        // The same words in another kind of file are less alike.
        const apart = ending && own && ending !== own ? 0.2 : 0
        return { target, title, likeness: Math.max(...named.map(other => likeness(words, other))) - apart, weight }
      })
      .sort((one, other) => other.likeness - one.likeness || other.weight - one.weight)
    const [best, second] = found
    if (!best || best.likeness < LEAST || (best.likeness === second?.likeness && best.weight === second.weight)) return undefined
    const { weight: _, ...suggestion } = best
    return suggestion
  }
}
