/** Keys searched as one text; a change makes only its own stretch anew. */
const STRETCH = 512
/** Between two keys; `fold` leaves none in them that anybody could type. */
const GAP = '\u0000'

interface Stretch {
  text: string
  starts: Uint32Array
}

/** Finds in which of many short texts a piece stands, by searching them in long runs, which engines do fast. */
export class NameIndex {
  private readonly keys: string[] = []
  private readonly stretches: (Stretch | undefined)[] = []

  set(slot: number, key: string): void {
    this.keys[slot] = key
    this.stretches[Math.floor(slot / STRETCH)] = undefined
  }

  private stretch(number: number): Stretch {
    const known = this.stretches[number]
    if (known) return known
    const keys = this.keys.slice(number * STRETCH, (number + 1) * STRETCH)
    const starts = new Uint32Array(keys.length + 1)
    keys.forEach((key, index) => (starts[index + 1] = starts[index]! + (key?.length ?? 0) + GAP.length))
    const made = { text: keys.join(GAP), starts }
    this.stretches[number] = made
    return made
  }

  /** Marks the keys in which every piece stands, with the number of pieces; others get less. */
  mark(pieces: string[], marks: Uint8Array): void {
    pieces.forEach((piece, found) =>
      this.markPiece(piece, slot => {
        if (marks[slot] === found) marks[slot] = found + 1
      }),
    )
  }

  /** Tells of each key in which a piece stands. */
  markPiece(piece: string, mark: (slot: number) => void): void {
    for (let number = 0; number * STRETCH < this.keys.length; number++) {
      const { text, starts } = this.stretch(number)
      let index = 0
      for (let at = text.indexOf(piece); at >= 0; at = text.indexOf(piece, starts[index])) {
        while (starts[index + 1]! <= at) index++
        mark(number * STRETCH + index)
        index++
      }
    }
  }
}
