import { withOverrides, type Appearance } from '../../look/appearance'
import { contrastOf, withNearest } from '../../look/contrastCheck'
import { tonePalettes } from '../../look/palette'
import { at, type Check } from '../check'
import type { Found } from '../finding'

const PART_WORDS = { words: 'label', note: 'second line', icon: 'icon', mark: 'mark of the keyboard' }

/**
 * Buttons whose parts do not stand out in each state. What stands before a picture is judged by its veil: how a picture looks is known in
 * browsers only.
 */
export const readable: Check = {
  name: 'readable',
  cost: 'hard',
  title: 'Hard to read',
  why: 'Words that hardly stand out are lost on a phone in the sun, and on many people always (WCAG 2.2, 1.4.3 and 1.4.11).',
  look({ palette, dark, look }, seen) {
    const schemes = [palette, ...(dark ? [dark] : [])].map(tonePalettes)
    return seen.flatMap((one): Found[] => {
      const base = one.attrs && look(one.attrs.look)
      if (!one.attrs || !base) return []
      const appearance = withOverrides(base, one.attrs.own)
      const failingOf = (drawn: Appearance) =>
        schemes.flatMap((palettes, scheme) =>
          contrastOf(drawn, palettes[one.tone], () => undefined)
            .filter(({ part, passes }) => !passes && (part !== 'note' || one.note))
            .map(result => ({ ...result, scheme })),
        )
      const failing = failingOf(appearance)
      const [worst] = failing.toSorted((one, other) => one.ratio / one.least - other.ratio / other.least)
      if (!worst) return []
      const onDark = failing.every(({ scheme }) => scheme === 1) ? ' on a dark screen' : ''
      const nearest = withNearest(appearance, worst)
      // A colour that helps on one kind of screen and not on the other is no help.
      const change = nearest && failingOf(withOverrides(appearance, nearest)).length < failing.length ? nearest : undefined
      return [
        at(one, {
          words: `Its ${PART_WORDS[worst.part]} stands out${onDark} ${worst.ratio.toFixed(1)} to 1${worst.state === 'normal' || worst.part === 'mark' ? '' : ` when ${worst.state === 'hover' ? 'pointed at' : 'pressed'}`}; ${worst.least} to 1 is needed.`,
          detail: `${worst.state} ${worst.part} ${worst.ratio.toFixed(2)}`,
          ...(change && { mend: { kind: 'appearance', placement: one.placement, change }, act: `Take the colour ${worst.nearest}` }),
        }),
      ]
    })
  },
}
