import { at, type Check } from '../check'
import type { Found } from '../finding'

/** Bytes from which on a visitor wants to know beforehand (common practice: some seconds on a phone). */
const LARGE = 5_000_000

/** Large files whose button does not say how large. */
export const sizeShown: Check = {
  name: 'size-shown',
  cost: 'hard',
  title: 'Large, and does not say so',
  why: 'On a phone a large file costs minutes and money. Said beforehand, it is taken at home.',
  look: ({ speech }, seen) =>
    seen.flatMap((one): Found[] => {
      const { file, written, words, note, placement } = one
      if (!file || file.size < LARGE || `${words} ${note}`.includes(speech.size(file.size))) return []
      const mended = written.note ? `${written.note}, {size}` : '{type}, {size}'
      return [
        at(one, {
          words: `The file is ${speech.size(file.size)}.`,
          detail: file.id,
          // A link in a sentence has no second line.
          ...(one.kind !== 'link' && { mend: { kind: 'note', placement, note: mended }, act: 'Add its size' }),
        }),
      ]
    }),
}
