import { MOST_WIDE, withOverrides } from '../../look/appearance'
import { widthNeeded } from '../../look/fit'
import { buttonParts } from '../../page/button'
import { at, type Check } from '../check'
import type { Found } from '../finding'

/** CSS pixels that the text column of a page has at most (43rem). */
const ROOM = 688
/** Browsers round the width of each letter, one more than the other. */
const ROUNDING = 1.03

/** Buttons of an exact width that is too narrow for their words. */
export const fits: Check = {
  name: 'fits',
  cost: 'hard',
  title: 'Words do not fit their button',
  why: 'They run over to lines that nobody planned, and look like a mistake.',
  look: ({ look, measure, speech }, seen) =>
    seen.flatMap((one): Found[] => {
      const { attrs, placement } = one
      const base = attrs && look(attrs.look)
      if (!base || !measure) return []
      const appearance = withOverrides(base, attrs.own)
      if (typeof appearance.width !== 'number') return []
      const { label, note } = buttonParts(attrs, one.destination, speech)
      const needed = widthNeeded(appearance, label, note, measure)
      if (needed <= appearance.width * ROUNDING) return []
      const width = Math.ceil(needed * ROUNDING)
      const wide = width <= Math.min(ROOM, MOST_WIDE)
      return [
        at(one, {
          words: `Its words need some ${needed} px to stand on one line, and it has ${appearance.width}.`,
          detail: `${appearance.width} ${label} ${note}`,
          mend: { kind: 'appearance', placement, change: { width: wide ? width : 'fill' } },
          act: wide ? `Make it ${width} px wide` : 'Let it take all the width',
        }),
      ]
    }),
}
