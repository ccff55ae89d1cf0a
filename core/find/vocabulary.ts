import { isSlipOf } from './typing'

/** Every word of many titles, and where it stands. */
export class Vocabulary {
  private readonly slots = new Map<string, number[]>()
  private readonly words: string[][] = []

  set(slot: number, words: string[]): void {
    this.words[slot] = words
    for (const word of words) {
      const known = this.slots.get(word)
      if (known) known.push(slot)
      else this.slots.set(word, [slot])
    }
  }

  /** Tells of each title with a word that was meant by `typed`. */
  markSlips(typed: string, mark: (slot: number) => void): void {
    for (const [word, slots] of this.slots) {
      if (!isSlipOf(typed, word)) continue
      // A title that has changed since no longer has the word.
      for (const slot of slots) if (this.words[slot]!.includes(word)) mark(slot)
    }
  }
}
