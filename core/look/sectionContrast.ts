import type { Fill } from './appearance'
import { LEAST, contrast } from './contrast'
import { groundsOf, leastVeil, type SampleOf } from './contrastCheck'
import type { Palette } from './palette'

/** How words stand out over the picture of a section. */
export interface SectionContrast {
  /** 1 to 21, at the worst point of the picture, on the worst kind of screen */
  ratio: number
  passes: boolean
  /** the least veil, in percent, with which they do */
  veil: number
}

/**
 * The contrast of words over a picture that has a veil of the section's colour (WCAG 2.2, 1.4.3).
 *
 * @param palettes of the section, one for each kind of screen
 * @param links words that lead somewhere stand there, too
 */
export function sectionContrast(
  { picture, veil, links }: { picture: string; veil: number; links: boolean },
  palettes: Palette[],
  sampleOf: SampleOf,
): SectionContrast {
  const each = palettes.map(palette => {
    const fill: Fill = { kind: 'picture', file: picture, colour: palette.paper, veil }
    const read = [palette.ink, ...(links ? [palette.accent] : [])].map(colour => ({ colour, least: LEAST.words }))
    const ratios = groundsOf(fill, palette, sampleOf).flatMap(ground => read.map(({ colour }) => contrast(colour, ground)))
    return { ratio: Math.min(...ratios), veil: leastVeil(fill, palette, sampleOf, read) ?? 100 }
  })
  const ratio = Math.min(...each.map(one => one.ratio))
  return { ratio, passes: ratio >= LEAST.words, veil: Math.max(...each.map(one => one.veil)) }
}
