import type { Measure } from '../../../core/look/fit'
import type { TypefaceName } from '../../../core/look/typefaces'
import { openFont } from './fonts'

/** Measures words in the fonts that pages are set in. */
export function createMeasuring() {
  return {
    /** For words in a typeface; undefined for one that only the reader's computer has. */
    async in(typeface: TypefaceName): Promise<Measure | undefined> {
      const font = await openFont(typeface, 'latin')
      return (
        font &&
        ((words, size, weight) => {
          const heavy = font(weight)
          return (heavy.layout(words).advanceWidth / heavy.unitsPerEm) * size
        })
      )
    },
  }
}
export type Measuring = ReturnType<typeof createMeasuring>
