/**
 * Milliseconds within which two downloads of one file by one visitor are one (COUNTER Code of Practice, section 7.3: double-click
 * filtering).
 */
const WINDOW = 30_000

/** Tells repeated clicks from downloads of their own. */
export class DoubleClicks {
  private readonly last = new Map<string, number>()

  /** Whether a download that has just ended repeats one of the same visitor; a row of clicks is one, however long it goes on. */
  repeats(visitor: string, file: string, at: number): boolean {
    const key = `${visitor}\n${file}`
    const before = this.last.get(key)
    // Re-inserting keeps the map in order of last use, oldest first.
    this.last.delete(key)
    this.last.set(key, at)
    for (const [old, moment] of this.last) {
      if (at - moment < WINDOW) break
      this.last.delete(old)
    }
    return before !== undefined && Math.abs(at - before) < WINDOW
  }
}
