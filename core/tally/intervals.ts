import type { ByteRange } from '../http/range'

/** Stretches in order, touching ones joined, with `added` put in. */
export function addInterval(intervals: ByteRange[], added: ByteRange): ByteRange[] {
  const sorted = [...intervals, added].filter(({ start, end }) => start < end).sort((a, b) => a.start - b.start)
  const joined: ByteRange[] = []
  for (const { start, end } of sorted) {
    const last = joined.at(-1)
    if (last && start <= last.end) last.end = Math.max(last.end, end)
    else joined.push({ start, end })
  }
  return joined
}

/** Whether the stretches hold every byte from 0 to `size`. */
export function coversAll(intervals: ByteRange[], size: number): boolean {
  return size === 0 || (intervals[0]?.start === 0 && intervals[0].end >= size)
}
