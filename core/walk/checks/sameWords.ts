import { canonical } from '../../canonical'
import { wordsOf } from '../../find/fold'
import { groupBy } from '../../group'
import { at, type Check } from '../check'
import type { Found } from '../finding'

/** Several buttons or links that say the same and lead to different things (WCAG 2.2, 2.4.4; WAI technique G197). */
export const sameWords: Check = {
  name: 'same-words',
  cost: 'misled',
  title: 'Says the same as another and leads elsewhere',
  why: 'Visitors take one for the other, and get the wrong file.',
  look: (_, seen) =>
    [...groupBy(seen, ({ words }) => wordsOf(words).join(' ')).values()].flatMap((group): Found[] => {
      const [first, ...others] = group
      return others
        .filter(({ target }) => canonical(target) !== canonical(first!.target))
        .map((one): Found => {
          const { title } = one.destination
          const differs = wordsOf(title).join(' ') !== wordsOf(one.words).join(' ')
          return at(one, {
            words: `“${one.words}” leads to “${title}” here, and to “${first!.destination.title}” further up.`,
            detail: canonical([first!.target, one.target])!,
            ...(differs && { mend: { kind: 'words', placement: one.placement, words: title }, act: `Say “${title}”` }),
          })
        })
    }),
}
