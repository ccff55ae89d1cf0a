import type { GateRule } from './gate'

/** Whether a gate opens at a time for anybody: before its first day and after its last it does for nobody. */
export function timeOf({ from, until }: Pick<GateRule, 'from' | 'until'>, now: number): 'open' | 'early' | 'late' {
  if (from !== null && now < Date.parse(from)) return 'early'
  return until !== null && now >= Date.parse(until) ? 'late' : 'open'
}

/** What has been let through a gate. */
export interface Taken {
  inAll: number
  /** with this pass */
  each: number
  /** on this day, where the site is */
  today: number
}

/** Whether one more download may be let through. */
export const hasRoom = (
  { most, mostEach, mostADay }: Pick<GateRule, 'most' | 'mostEach' | 'mostADay'>,
  { inAll, each, today }: Taken,
): boolean => (most === null || inAll < most) && (mostEach === null || each < mostEach) && (mostADay === null || today < mostADay)

/** Whether a gate counts what it lets through. */
export const isLimited = ({ most, mostEach, mostADay }: Pick<GateRule, 'most' | 'mostEach' | 'mostADay'>): boolean =>
  most !== null || mostEach !== null || mostADay !== null
