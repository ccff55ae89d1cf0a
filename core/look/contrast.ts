import { channelsOf, toHex, type Channels } from './channels'

/** Relative luminance, 0 to 1 (WCAG 2.2, definition of "relative luminance"). */
export function luminance(colour: string): number {
  const [red, green, blue] = channelsOf(colour).map(channel => {
    const share = channel / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  }) as Channels
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue
}

/** Contrast ratio, 1 to 21 (WCAG 2.2, definition of "contrast ratio"). */
export function contrast(a: string, b: string): number {
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

/** The least contrast of words that WCAG 2.2 asks for at level AA (1.4.3); 3 for large ones, and for borders and focus marks (1.4.11). */
export const LEAST = { words: 4.5, large: 3, mark: 3 } as const

/** What makes words large: 24 CSS pixels, or 18.66 and bold (WCAG 2.2, definition of "large scale"; 18 and 14 points). */
export const isLarge = (pixels: number, weight: number): boolean => pixels >= 24 || (weight >= 700 && pixels >= 18.66)

/** The step from a colour towards black or white, in 256ths. */
const shaded = (colour: string, towards: 0 | 255, step: number): string =>
  toHex(channelsOf(colour).map(channel => channel + ((towards - channel) * step) / 256))

/**
 * The colour nearest to `colour`, made darker or lighter, that has at least `least` against every ground; undefined
 * where none has.
 */
export function nearestPassing(colour: string, grounds: string[], least: number): string | undefined {
  for (let step = 0; step <= 256; step++) {
    for (const towards of [0, 255] as const) {
      const tried = shaded(colour, towards, step)
      if (grounds.every(ground => contrast(tried, ground) >= least)) return tried
    }
  }
  return undefined
}
