import type { Sink } from './reader'
import type { SheetHandlers } from './spreadsheet'

/** Characters of a long run that make one part. */
const PIECE = 8000

/** Gathers text and hands it on in parts of bearable length. */
export class Pieces {
  private text = ''
  private waiting: string[] = []
  private total = 0

  add(piece: string): void {
    this.text += piece
    this.total += piece.length
    if (this.text.length > PIECE) this.cut()
  }

  /** What was added is one part, whatever its length. */
  cut(): void {
    if (this.text.trim()) this.waiting.push(this.text)
    this.text = ''
  }

  get enough(): boolean {
    return this.total > 20_000_000
  }

  async handOver(sink: Sink, part: string): Promise<void> {
    this.cut()
    for (const body of this.waiting) if (!(await sink.take(part, body))) break
    this.waiting = []
  }
}

/** Sheets as text: a row a line. Rows are gathered while the sheet is read and handed on between sheets. */
export async function readSheets(path: string, sink: Sink, read: (path: string, handlers: SheetHandlers) => Promise<void>): Promise<void> {
  const sheets: { name: string; pieces: Pieces }[] = []
  await read(path, {
    sheet: name => sheets.push({ name, pieces: new Pieces() }),
    row(cells) {
      const { pieces } = sheets.at(-1)!
      if (cells.length) pieces.add(`${cells.join('\t')}\n`)
      return !pieces.enough
    },
  })
  sink.facts.sheets = sheets.length
  for (const { name, pieces } of sheets) await pieces.handOver(sink, name)
}
