import { at, type Check } from '../check'
import { outdatedIn } from '../dateWords'
import type { Found } from '../finding'

/** Words that name an older month or year than the file behind them. */
export const dateNamed: Check = {
  name: 'date-named',
  cost: 'misled',
  title: 'Names an older date than its file',
  why: 'Visitors believe that the new one is not there yet, and do not take it.',
  look: (_, seen) =>
    seen.flatMap((one): Found[] => {
      const { file, placement, written } = one
      if (!file?.dated) return []
      return (['label', 'note'] as const).flatMap(part => {
        const outdated = outdatedIn(written[part], file.dated!)
        if (!outdated) return []
        const { named, mended } = outdated
        return [
          at(one, {
            words: `It says “${named}”, and the file is of ${file.dated}.`,
            detail: `${part} ${named} ${file.dated}`,
            act: `Say “${mended}”`,
            mend: part === 'note' ? { kind: 'note', placement, note: mended } : { kind: 'words', placement, words: mended },
          }),
        ]
      })
    }),
}
