/** A stretch of bytes: `start` inclusive, `end` exclusive. */
export interface ByteRange {
  start: number
  end: number
}

/** More ranges than this in one request are ignored, as RFC 9110, section 14.2 allows. */
const MAX_RANGES = 64

/**
 * Reads a Range header for a representation of `size` bytes (RFC 9110, sections 14.1.1, 14.1.2 and 14.2).
 *
 * @returns `undefined` where the field is to be ignored (another unit, a syntax error, too many ranges),
 * `'unsatisfiable'` where no range touches the bytes, or the ranges in the order asked for, each cut to
 * the size and joined with those it overlaps.
 */
export function parseRange(header: string, size: number): ByteRange[] | 'unsatisfiable' | undefined {
  const set = /^bytes=(.*)$/i.exec(header.trim())?.[1]
  if (set === undefined) return undefined
  // Empty list members are allowed and ignored (section 5.6.1.2).
  const specs = set
    .split(',')
    .map(spec => spec.trim())
    .filter(Boolean)
  if (!specs.length || specs.length > MAX_RANGES) return undefined

  const ranges: ByteRange[] = []
  for (const spec of specs) {
    const match = /^(\d*)-(\d*)$/.exec(spec)
    if (!match || spec === '-') return undefined
    const [, first, last] = match
    if (first && last && BigInt(first) > BigInt(last)) return undefined
    const range = first
      ? { start: Number(first), end: last ? Math.min(Number(last) + 1, size) : size }
      : { start: Math.max(0, size - Number(last)), end: size }
    if (range.start < range.end) addRange(ranges, range)
  }
  return ranges.length ? ranges : 'unsatisfiable'
}

/** Joins a range with the earlier ones it overlaps, in the place of the first of them. */
function addRange(ranges: ByteRange[], range: ByteRange): void {
  const index = ranges.findIndex(other => range.start < other.end && other.start < range.end)
  if (index < 0) {
    ranges.push(range)
    return
  }
  const [other] = ranges.splice(index, 1)
  const joined = { start: Math.min(range.start, other!.start), end: Math.max(range.end, other!.end) }
  const before = ranges.length
  addRange(ranges, joined)
  // Where nothing else overlapped, the joined range keeps its place instead of going to the end.
  if (ranges.length > before) ranges.splice(index, 0, ranges.pop()!)
}
