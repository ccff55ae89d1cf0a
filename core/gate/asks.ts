import type { Speech } from '../language/speech'
import type { GateKind, GateRule } from './gate'

const WORDS = { password: 'asksPassword', email: 'asksEmail', people: 'asksPeople', terms: 'asksTerms' } as const

/** What is asked before something is had, in a few words: "password needed". */
export const asksWords = (asks: GateKind, speech: Speech): string => speech.say(WORDS[asks])

/** How visitors see something that stands behind gates. */
export interface Behind {
  /** what is asked first */
  asks: GateKind
  /** nobody learns that it is there */
  hidden: boolean
  /** its first page may be shown all the same */
  showsFirst: boolean
}

/**
 * How something is seen by who has not passed some of its gates; undefined where none is left.
 *
 * @param passed the gates that whoever reads it has passed
 */
export function behindOf(
  ids: readonly string[],
  rules: ReadonlyMap<string, { rule: GateRule }>,
  passed: ReadonlySet<string> = new Set(),
): Behind | undefined {
  // Most things stand behind none, and lists ask for each of ten thousand.
  if (!ids.length) return undefined
  const left = ids.filter(id => !passed.has(id)).flatMap(id => rules.get(id)?.rule ?? [])
  const [first] = left
  return first && { asks: first.kind, hidden: left.some(({ hidden }) => hidden), showsFirst: left.every(({ showsFirst }) => showsFirst) }
}

/** A lock, for where there is no room for words; whoever does not see it hears them. */
export const LOCK =
  '<svg class="tr-lock" viewBox="0 0 24 24" aria-hidden="true"><path d="M7 10V8a5 5 0 0 1 10 0v2h1.5a.5.5 0 0 1 .5.5v9a.5.5 0 0 1-.5.5h-13a.5.5 0 0 1-.5-.5v-9a.5.5 0 0 1 .5-.5zm2 0h6V8a3 3 0 0 0-6 0z"/></svg>'
