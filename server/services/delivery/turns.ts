/** Answers one address is sent from the disk at once; further ones wait until one of them is done. */
const AT_ONCE = 24

/**
 * Lets nobody take all there is: a visitor with very many connections gets as much as many visitors with one,
 * and the rest of their requests wait, costing nothing. Addresses shared by many people still get that many.
 */
export class Turns {
  private readonly taken = new Map<string, number>()
  private readonly waiting = new Map<string, (() => void)[]>()

  constructor(private readonly atOnce = AT_ONCE) {}

  /**
   * Waits for a turn.
   *
   * @returns gives it back
   */
  async take(address: string): Promise<() => void> {
    const count = this.taken.get(address) ?? 0
    if (count < this.atOnce) this.taken.set(address, count + 1)
    else {
      await new Promise<void>(resolve => {
        const queue = this.waiting.get(address)
        if (queue) queue.push(resolve)
        else this.waiting.set(address, [resolve])
      })
    }
    return () => this.give(address)
  }

  private give(address: string): void {
    const queue = this.waiting.get(address)
    const next = queue?.shift()
    if (queue && !queue.length) this.waiting.delete(address)
    // The turn goes on to who has waited longest.
    if (next) return next()
    const count = this.taken.get(address)! - 1
    if (count) this.taken.set(address, count)
    else this.taken.delete(address)
  }
}
