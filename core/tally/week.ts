/** From a moment on, in seconds since 1970, a time zone is so many seconds ahead of UTC. */
export interface Ahead {
  from: number
  seconds: number
}

export const HOURS_OF_WEEK = 7 * 24

/** The hour of the week, from Monday midnight on (ISO 8601), of a moment by the clocks of a place that far ahead of UTC. */
export const hourOfWeek = (at: number, seconds: number): number =>
  // 1970 began on a Thursday.
  (Math.floor((at + seconds) / 3600) + 3 * 24) % HOURS_OF_WEEK

/** Hours that stand together in a table. */
export const TOGETHER = 3

/** Downloads of each weekday, from Monday on, by some hours each. */
export const weekTable = (week: readonly number[]): number[][] =>
  Array.from({ length: 7 }, (_, day) =>
    Array.from({ length: 24 / TOGETHER }, (_, part) => {
      const start = day * 24 + part * TOGETHER
      return week.slice(start, start + TOGETHER).reduce((sum, count) => sum + count, 0)
    }),
  )
