import { wordsOf } from '../../find/fold'
import { at, type Check } from '../check'
import type { Found } from '../finding'

const SAYS_NOTHING = new Set([
  'click here',
  'click',
  'here',
  'see here',
  'download',
  'download here',
  'click to download',
  'download now',
  'more',
  'read more',
  'learn more',
  'see more',
  'find out more',
  'link',
  'this link',
  'this',
  'file',
  'this file',
  'document',
  'this document',
  'pdf',
  'the pdf',
  'pdf here',
  'get it',
  'go',
  'open',
  'view',
  'info',
  'details',
])
const isVague = (words: string) => SAYS_NOTHING.has(wordsOf(words).join(' '))

/** Words that do not say what is behind them (WCAG 2.2, 2.4.4; WAI technique G91). */
export const vague: Check = {
  name: 'vague',
  cost: 'hard',
  title: 'Does not say what it gives',
  why: 'Who hops from link to link, or has them read out, hears only these words (WCAG 2.2, 2.4.4).',
  look: (_, seen) =>
    seen
      .filter(({ words }) => isVague(words))
      .map((one): Found => {
        const { title } = one.destination
        return at(one, {
          words: `“${one.words}” says nothing of “${title}”.`,
          detail: one.words,
          ...(!isVague(title) && { mend: { kind: 'words', placement: one.placement, words: title }, act: `Say “${title}”` }),
        })
      }),
}
