export type Hatch = 'none' | 'rising' | 'dots' | 'falling' | 'level' | 'upright'

/** Colours of the desk for bars, each with a way of hatching: they are told apart without their colour, too. The last one is the rest's. */
export const FILLS: readonly (readonly [colour: string, hatch: Hatch])[] = [
  ['#0E6A68', 'none'],
  ['#B4532A', 'rising'],
  ['#A67A0C', 'dots'],
  ['#4B7A3A', 'falling'],
  ['#4C5A57', 'level'],
  ['#A9B7B3', 'upright'],
]

/** The fill of a place in the order. */
export const fillAt = (place: number): number => Math.min(place, FILLS.length - 1)
