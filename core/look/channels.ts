export type Channels = [red: number, green: number, blue: number]

/**
 * Red, green and blue of `#rrggbb`, 0 to 255.
 *
 * @throws RangeError where the text is no such colour
 */
export function channelsOf(colour: string): Channels {
  const match = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(colour)
  if (!match) throw new RangeError(`"${colour}" is not a colour of the form #rrggbb.`)
  return match.slice(1).map(pair => Number.parseInt(pair, 16)) as Channels
}

/** `#RRGGBB` of red, green and blue, each rounded to a whole number of 0 to 255. */
export const toHex = (channels: number[]): string =>
  `#${channels.map(channel => Math.round(channel).toString(16).padStart(2, '0')).join('')}`.toUpperCase()
