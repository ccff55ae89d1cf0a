import { mix } from './palette'

const STEPS = 24

/** Colours along a gradient, its stops among them: its worst point may lie between two of them. */
export function mixedAlong(stops: { colour: string; at: number }[]): string[] {
  const sorted = [...stops].sort((a, b) => a.at - b.at)
  return sorted.flatMap(({ colour }, index) => {
    const next = sorted[index + 1]
    return next ? Array.from({ length: STEPS }, (_, step) => mix(next.colour, colour, step / STEPS)) : [colour]
  })
}
