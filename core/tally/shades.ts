/** How many shades a map has, besides that of none. */
export const SHADES = 5

/**
 * The shade of each count, 1 to {@link SHADES}; 0 for none. Each shade goes up to a fifth of the way in powers, so that a country with a
 * tenth of the largest is told from one with a hundredth.
 */
export function shadeOf(count: number, largest: number): number {
  if (count <= 0) return 0
  if (largest <= 1) return SHADES
  return 1 + Math.min(SHADES - 1, Math.floor((Math.log(count) / Math.log(largest)) * SHADES))
}

/** The counts that each shade stands for, from the palest on; shades that no count has are left out. */
export function shadeBounds(largest: number): { shade: number; from: number; to: number }[] {
  const found: { shade: number; from: number; to: number }[] = []
  const least = (shade: number) => (shade === 1 ? 1 : Math.ceil(largest ** ((shade - 1) / SHADES) - 1e-9))
  for (let shade = 1; shade <= SHADES; shade++) {
    const from = least(shade)
    const to = shade === SHADES ? largest : Math.min(largest, least(shade + 1) - 1)
    if (from <= to && shadeOf(from, largest) === shade) found.push({ shade, from, to })
  }
  return found
}
