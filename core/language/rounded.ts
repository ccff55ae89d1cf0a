/** How exactly visitors are told how often something was taken. */
export const COUNTS_TOLD = ['exact', 'rounded'] as const
export type CountsTold = (typeof COUNTS_TOLD)[number]

/** Fewer are told as they are: they would be rounded by half. */
const EXACT_BELOW = 20

/** A count by its two leading figures, below a hundred by its tens, never more than it is: 1,234 is 1,200, and 87 is 80. */
export function roundedDown(count: number): number {
  if (count < EXACT_BELOW) return count
  const step = 10 ** Math.max(1, String(Math.trunc(count)).length - 2)
  return Math.floor(count / step) * step
}
