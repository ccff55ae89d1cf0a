import { isSlipOf } from '../../find/typing'
import { PLACEHOLDER_NAMES, strayPlaceholders } from '../../page/placeholders'
import { at, type Check } from '../check'
import type { Found } from '../finding'

/** What was meant by a placeholder that does not exist; nothing where that cannot be told. */
function meant(stray: string): string {
  const typed = stray.slice(1, -1).toLowerCase()
  const name = PLACEHOLDER_NAMES.find(known => known === typed || isSlipOf(typed, known))
  return name ? `{${name}}` : ''
}

/** Braces in what visitors read. */
export const placeholders: Check = {
  name: 'placeholder',
  cost: 'misled',
  title: 'A placeholder that does not exist',
  why: 'Visitors read the braces as they were typed.',
  look: (_, seen) =>
    seen.flatMap((one): Found[] =>
      (['label', 'note'] as const).flatMap((part): Found[] => {
        const text = one.written[part]
        const [stray] = one.kind === 'link' ? [] : strayPlaceholders(text)
        if (stray === undefined) return []
        const instead = meant(stray)
        const mended = instead
          ? text.replace(stray, instead)
          : text.replace(new RegExp(`(,\\s*)?${stray.replace(/[{}]/g, '\\$&')}`), '').replace(/^[,\s]+/, '')
        return [
          at(one, {
            words: `It says ${stray}.`,
            detail: `${part} ${stray}`,
            act: instead ? `Make it ${instead}` : `Take ${stray} away`,
            mend:
              part === 'note'
                ? { kind: 'note', placement: one.placement, note: mended }
                : { kind: 'words', placement: one.placement, words: mended },
          }),
        ]
      }),
    ),
}
