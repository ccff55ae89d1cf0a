import { readProperties, withPackage, type OfficePackage } from './package'
import { Unreadable, type Reader, type Sink } from './reader'
import { readOpenSpreadsheet, readWorkbook, type SheetHandlers } from './spreadsheet'

const CORE = 'docProps/core.xml'
/** Characters of a long run that make one part. */
const PIECE = 8000

/** Gathers text and hands it on in parts of bearable length. */
class Pieces {
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

/** Text of a WordprocessingML or DrawingML part: paragraphs on lines of their own. */
async function readParagraphs({ xml }: OfficePackage, name: string, pieces: Pieces): Promise<void> {
  let inText = false
  await xml(name, {
    open(tag) {
      if (tag === 't') inText = true
      else if (tag === 'tab') pieces.add('\t')
      else if (tag === 'br') pieces.add('\n')
    },
    text: piece => inText && pieces.add(piece),
    close(tag) {
      if (tag === 't') inText = false
      else if (tag === 'p') pieces.add('\n')
    },
    wanted: () => !pieces.enough,
  })
}

export const readWord: Reader = (path, sink) =>
  withPackage(path, async parts => {
    if (!parts.has('word/document.xml')) throw new Unreadable('The document is damaged: its text is missing.')
    await readProperties(parts, CORE, sink)
    const pieces = new Pieces()
    const more = parts.names.filter(name => /^word\/(?:footnotes|endnotes|header\d*|footer\d*)\.xml$/.test(name))
    for (const name of ['word/document.xml', ...more]) await readParagraphs(parts, name, pieces)
    await pieces.handOver(sink, '')
  })

const numberIn = (name: string) => Number(/\d+/.exec(name)?.[0] ?? 0)

export const readSlides: Reader = (path, sink) =>
  withPackage(path, async parts => {
    await readProperties(parts, CORE, sink)
    const slides = parts.names.filter(name => /^ppt\/slides\/slide\d+\.xml$/.test(name)).sort((a, b) => numberIn(a) - numberIn(b))
    sink.facts.pages = slides.length
    for (const [index, name] of slides.entries()) {
      const pieces = new Pieces()
      await readParagraphs(parts, name, pieces)
      await pieces.handOver(sink, `Slide ${index + 1}`)
    }
  })

/** Sheets as text: a row a line. Rows are gathered while the sheet is read and handed on between sheets. */
async function readSheets(path: string, sink: Sink, read: (path: string, handlers: SheetHandlers) => Promise<void>): Promise<void> {
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

export const readSpreadsheet: Reader = async (path, sink) => {
  await withPackage(path, parts => readProperties(parts, CORE, sink))
  await readSheets(path, sink, readWorkbook)
}

export const readOpenDocument: Reader = (path, sink) =>
  withPackage(path, async parts => {
    if (!parts.has('content.xml')) throw new Unreadable('The document is damaged: its text is missing.')
    await readProperties(parts, 'meta.xml', sink)
    let pieces = new Pieces()
    const slides: Pieces[] = []
    let depth = 0
    await parts.xml('content.xml', {
      open(tag) {
        if (tag === 'page') slides.push((pieces = new Pieces()))
        else if (tag === 'p' || tag === 'h') depth++
        else if (tag === 'tab') pieces.add('\t')
        else if (tag === 's') pieces.add(' ')
      },
      text: piece => depth && pieces.add(piece),
      close(tag) {
        if (tag !== 'p' && tag !== 'h') return
        depth--
        pieces.add('\n')
      },
      wanted: () => !pieces.enough,
    })
    if (slides.length) sink.facts.pages = slides.length
    else await pieces.handOver(sink, '')
    for (const [index, slide] of slides.entries()) await slide.handOver(sink, `Slide ${index + 1}`)
  })

export const readOpenSheets: Reader = async (path, sink) => {
  await withPackage(path, parts => readProperties(parts, 'meta.xml', sink))
  await readSheets(path, sink, readOpenSpreadsheet)
}
