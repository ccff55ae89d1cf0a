import { z } from 'zod'
import { diffArrays } from 'diff'
import { wordsOf } from '../find/fold'

/** A page, sheet or slide, with its words as they stand there. */
export interface TextPart {
  part: string
  body: string
}

/** Lines that stand in one of two documents where the other has others. */
export const textChangeSchema = z.object({
  /** where in the newer one, such as "Page 3"; in the older one for what is gone */
  part: z.string(),
  before: z.array(z.string()),
  after: z.array(z.string()),
})
export type TextChange = z.infer<typeof textChangeSchema>

export const textComparisonSchema = z.object({
  changes: z.array(textChangeSchema),
  /** changes that were found, told or not */
  total: z.number(),
  /** share of words that both have, 0 to 1 */
  inCommon: z.number(),
  /** they differ too much for single changes to be told */
  apart: z.boolean(),
})
export type TextComparison = z.infer<typeof textComparisonSchema>

/** Changes that are told at once. */
const MOST_TOLD = 200
/** Lines that may differ before it is no use to tell each; also bounds the time, which grows with its square. */
const MOST_DIFFERENT = 4000

interface Line {
  text: string
  part: string
}

/** What is read as one line: drawn in columns or not, spaces say nothing. */
const linesOf = (parts: readonly TextPart[]): Line[] =>
  parts.flatMap(({ part, body }) =>
    body
      .split('\n')
      .map(text => text.replace(/\s+/g, ' ').trim())
      .filter(Boolean)
      .map(text => ({ text, part })),
  )

/** Words two texts share, each as often as it stands in both, against all words of both (Dice's coefficient). */
function shareInCommon(before: readonly TextPart[], after: readonly TextPart[]): number {
  const counts = new Map<string, number>()
  const all = (parts: readonly TextPart[]) => parts.flatMap(({ body }) => wordsOf(body))
  const [old, now] = [all(before), all(after)]
  if (!old.length && !now.length) return 1
  for (const word of old) counts.set(word, (counts.get(word) ?? 0) + 1)
  let common = 0
  for (const word of now) {
    const left = counts.get(word) ?? 0
    if (!left) continue
    common++
    counts.set(word, left - 1)
  }
  return (2 * common) / (old.length + now.length)
}

/** What changed from one text to another, line by line (Myers 1986, as the package `diff` has it). */
export function compareTexts(before: readonly TextPart[], after: readonly TextPart[]): TextComparison {
  const inCommon = shareInCommon(before, after)
  const [old, now] = [linesOf(before), linesOf(after)]
  const hunks = diffArrays(old, now, { comparator: (one, other) => one.text === other.text, maxEditLength: MOST_DIFFERENT })
  if (!hunks) return { changes: [], total: 0, inCommon, apart: true }
  const changes: TextChange[] = []
  let open: TextChange | undefined
  for (const { added, removed, value } of hunks) {
    if (!added && !removed) {
      open = undefined
      continue
    }
    if (!open) changes.push((open = { part: value[0]!.part, before: [], after: [] }))
    open[added ? 'after' : 'before'].push(...value.map(line => line.text))
    if (added) open.part = value[0]!.part
  }
  return { changes: changes.slice(0, MOST_TOLD), total: changes.length, inCommon, apart: false }
}
