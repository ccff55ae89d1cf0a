/** Red, green and blue of `#rrggbb`, 0 to 255. */
function channels(colour: string): [number, number, number] {
  const match = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(colour)
  if (!match) throw new RangeError(`"${colour}" is not a colour of the form #rrggbb.`)
  return [match[1]!, match[2]!, match[3]!].map(pair => Number.parseInt(pair, 16)) as [number, number, number]
}

/** Relative luminance, 0 to 1 (WCAG 2.2, definition of "relative luminance"). */
export function luminance(colour: string): number {
  const [red, green, blue] = channels(colour).map((channel) => {
    const share = channel / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue
}

/** Contrast ratio, 1 to 21 (WCAG 2.2, definition of "contrast ratio"). */
export function contrast(a: string, b: string): number {
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}
