/** bytes of a buffer for a client that has not shown yet how fast it takes them */
const SMALL = 64 * 1024
/** Larger reads more than double the throughput of a single stream; yet larger ones add nothing. */
const LARGE = 1024 * 1024
/** Large buffers in use at once: a bound of the memory that clients can hold, however many and slow they are. */
const MOST_LARGE = 64
/** spare buffers of each size that are kept */
const KEPT = { small: 128, large: 8 }

/** Buffers that are used again: getting a fresh megabyte from the system costs as much as reading it. */
export class Buffers {
  private readonly spare = { small: [] as Buffer[], large: [] as Buffer[] }
  private largeInUse = 0

  /** A large buffer where one is wanted and not too many are in use, else a small one. */
  take(wanted: 'small' | 'large'): Buffer {
    if (wanted === 'small' || this.largeInUse >= MOST_LARGE) return this.spare.small.pop() ?? Buffer.allocUnsafeSlow(SMALL)
    this.largeInUse++
    return this.spare.large.pop() ?? Buffer.allocUnsafeSlow(LARGE)
  }

  /** Takes a buffer back that nobody reads any more. */
  give(buffer: Buffer): void {
    const size = buffer.length === LARGE ? 'large' : 'small'
    if (size === 'large') this.largeInUse--
    if (this.spare[size].length < KEPT[size]) this.spare[size].push(buffer)
  }
}
