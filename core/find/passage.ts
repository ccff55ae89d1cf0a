import { z } from 'zod'
import { wholeAt } from '../cut'
import { fold, isUnspaced } from './fold'

/** A stretch of text in which every other piece is a match: plain, match, plain, match, plain… */
export const passageSchema = z.array(z.string())
export type Passage = z.infer<typeof passageSchema>

/** Characters shown before the first match, and from it on. */
const BEFORE = 28
const AFTER = 130

interface Hit {
  start: number
  end: number
}

/** Places looked at in one text: enough to choose a passage by. */
const MOST_HITS = 200
const LETTER = /[\p{L}\p{N}\p{M}]/u

/** Where words beginning with one of `terms` (folded) stand in a text that folding leaves as long as it is. */
function* hitsInFolded(folded: string, terms: string[]): Generator<Hit> {
  const next = terms.map(term => folded.indexOf(term))
  for (;;) {
    let first = -1
    for (const [index, at] of next.entries()) if (at >= 0 && (first < 0 || at < next[first]!)) first = index
    if (first < 0) return
    const start = next[first]!
    const end = start + terms[first]!.length
    if (start === 0 || !LETTER.test(folded[start - 1]!) || isUnspaced(terms[first]!)) yield { start, end }
    for (const [index, term] of terms.entries()) if (next[index] === start) next[index] = folded.indexOf(term, start + 1)
  }
}

/** Where terms stand anywhere in a run that is written without spaces, whose folding may be longer or shorter. */
function hitsInRun(run: string, offset: number, terms: string[]): Hit[] {
  let folded = ''
  const places: number[] = []
  let at = offset
  for (const letter of run) {
    for (const piece of fold(letter)) {
      folded += piece
      for (let unit = 0; unit < piece.length; unit++) places.push(at)
    }
    at += letter.length
  }
  places.push(at)
  const hits = terms.flatMap(term => {
    const found: Hit[] = []
    for (let start = folded.indexOf(term); start >= 0; start = folded.indexOf(term, start + 1))
      found.push({ start: places[start]!, end: places[start + term.length]! })
    return found
  })
  return hits.sort((a, b) => a.start - b.start)
}

/** The same word by word, marking whole words where folding changes their lengths. */
function* hitsInWords(text: string, terms: string[]): Generator<Hit> {
  const unspaced = terms.filter(isUnspaced)
  for (const match of text.matchAll(/[\p{L}\p{N}\p{M}]+/gu)) {
    if (unspaced.length && isUnspaced(match[0])) {
      yield* hitsInRun(match[0], match.index, unspaced)
      continue
    }
    const word = fold(match[0])
    const term = terms.find(candidate => word.startsWith(candidate))
    if (term) yield { start: match.index, end: match.index + (word.length === match[0].length ? term.length : match[0].length) }
  }
}

/** Whether every letter stands where it stood, once folded. */
const keepsPlaces = (text: string, folded: string) =>
  // eslint-disable-next-line no-control-regex
  folded.length === text.length && (text.match(/[^\u0000-\u007F]/g) ?? []).every(letter => fold(letter).length === 1)

/**
 * Where words begin with one of those looked for; the first places of a long text.
 *
 * @param terms folded words, or the beginnings of words
 */
export function hitsIn(text: string, terms: string[]): Hit[] {
  const folded = fold(text)
  const hits: Hit[] = []
  for (const hit of keepsPlaces(text, folded) ? hitsInFolded(folded, terms) : hitsInWords(text, terms)) {
    const last = hits.at(-1)
    // Letters in twos overlap: what stands together is one place.
    if (last && hit.start < last.end) last.end = Math.max(last.end, hit.end)
    else if (hits.push(hit) === MOST_HITS) break
  }
  return hits
}

/** The beginning of the stretch that holds the most different hits. */
function densest(hits: Hit[]): number {
  let best = 0
  let most = 0
  for (const [index, { start }] of hits.entries()) {
    const within = hits.filter((hit, other) => other >= index && hit.start - start < AFTER).length
    if (within > most) [best, most] = [index, within]
  }
  return best
}

/**
 * The passage of a text around the words that were looked for; undefined where none stands in it.
 *
 * @param terms folded words, or the beginnings of words
 */
export function passageIn(text: string, terms: string[]): Passage | undefined {
  const hits = hitsIn(text, terms)
  if (!hits.length) return undefined
  const first = hits[densest(hits)]!
  // From the beginning of a word, where one begins there.
  const start =
    first.start <= BEFORE ? 0 : wholeAt(text, Math.max(first.start - BEFORE, text.lastIndexOf(' ', first.start - BEFORE / 2) + 1))
  const end = wholeAt(text, Math.min(text.length, first.start + AFTER))
  const pieces: Passage = []
  let at = start
  for (const hit of hits.filter(({ start: hitStart, end: hitEnd }) => hitStart >= start && hitEnd <= end)) {
    pieces.push(text.slice(at, hit.start), text.slice(hit.start, hit.end))
    at = hit.end
  }
  pieces.push(text.slice(at, end))
  const tidy = pieces.map(piece => piece.replace(/\s+/g, ' '))
  if (start > 0) tidy[0] = `…${tidy[0]}`
  if (end < text.length) tidy[tidy.length - 1] += '…'
  return tidy
}
