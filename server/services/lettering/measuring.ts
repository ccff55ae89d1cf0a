import type { Measure } from '../../../core/look/fit'
import type { OwnTypeface } from '../../../core/look/ownTypeface'
import { TYPEFACES, type Lettering, type TypefaceName } from '../../../core/look/typefaces'
import { openFont, openServed, type Font } from './fonts'

/** Measures words in the fonts that pages are set in; those of the site's own are read by their names. */
export function createMeasuring(bytesOf: (name: string) => Promise<Uint8Array | undefined>) {
  /** Of the fonts of a typeface the one whose weights are nearest. */
  async function openOwn({ cuts }: OwnTypeface): Promise<Font | undefined> {
    const fonts = await Promise.all(
      cuts.map(async ({ least, most, parts }) => {
        const bytes = await bytesOf(parts[0]!.file)
        return bytes && { least, most, font: await openServed(bytes) }
      }),
    )
    const there = fonts.filter(font => font !== undefined)
    if (!there.length) return undefined
    const far = (weight: number) => (cut: { least: number; most: number }) => Math.max(cut.least - weight, weight - cut.most, 0)
    return weight => there.reduce((one, other) => (far(weight)(other) < far(weight)(one) ? other : one)).font(weight)
  }

  return {
    /** For words in the text of a site; undefined where that is a typeface that only the reader's computer has. */
    async in({ type: { text }, own }: Lettering): Promise<Measure | undefined> {
      const chosen = own.find(({ id }) => id === text)
      const font = chosen ? await openOwn(chosen) : text in TYPEFACES ? await openFont(text as TypefaceName, 'latin') : undefined
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
