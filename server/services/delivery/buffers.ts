/** bytes of a buffer for a client that has not shown yet how fast it takes them */
export const SMALL = 64 * 1024
/** Larger reads more than double the throughput of a single stream; yet larger ones add nothing. */
export const LARGE = 1024 * 1024
/** Large buffers in use at once: a bound of the memory that clients can hold, however many and slow they are. */
const MOST_LARGE = 64
const KEPT = { [SMALL]: 128, [LARGE]: 8 }

type Size = typeof SMALL | typeof LARGE

/** Buffers that are used again: getting a fresh megabyte from the system costs as much as reading it. */
export class Buffers {
  private readonly spare: Record<Size, Buffer[]> = { [SMALL]: [], [LARGE]: [] }
  private largeInUse = 0

  /** A buffer of a size, or a small one where too many large ones are in use. */
  take(wanted: Size): Buffer {
    const size = wanted === LARGE && this.largeInUse >= MOST_LARGE ? SMALL : wanted
    if (size === LARGE) this.largeInUse++
    return this.spare[size].pop() ?? Buffer.allocUnsafeSlow(size)
  }

  /** Takes a buffer back that nobody reads any more. */
  give(buffer: Buffer): void {
    const size = buffer.length as Size
    if (size === LARGE) this.largeInUse--
    if (this.spare[size].length < KEPT[size]) this.spare[size].push(buffer)
  }
}
