import { readFile, stat } from 'node:fs/promises'
import cfb from 'cfb'
import { read, type CellObject, type WorkSheet } from '@e965/xlsx'
import WordExtractor from 'word-extractor'
import { Pieces, readSheets } from './pieces'
import { Unreadable, type Reader, type Sink } from './reader'
import type { SheetHandlers } from './spreadsheet'

/** Bytes of a document that is taken into memory whole; those of offices seldom have a hundredth of that. */
const MOST = 100_000_000

async function bytesOf(path: string): Promise<Buffer> {
  if ((await stat(path)).size > MOST) throw new Unreadable('The document is too large to be looked into. Visitors can download it.')
  return readFile(path)
}

/** What a library says of a document that it cannot open, in words for its owner. */
function refusal(error: unknown): Unreadable {
  const { message } = error as Error
  return /password|encrypt/i.test(message)
    ? new Unreadable('The document is locked with a password: visitors need it, too.')
    : new Unreadable(`The document is damaged or of another kind than its name says (${message}).`)
}

/** Word 97 to 2003 ([MS-DOC]): text with what stands in notes, head and foot. */
export const readOldWord: Reader = async (path, sink) => {
  const bytes = await bytesOf(path)
  const document = await new WordExtractor().extract(bytes).catch((error: unknown) => {
    throw refusal(error)
  })
  const pieces = new Pieces()
  for (const text of [
    document.getBody(),
    document.getTextboxes(),
    document.getFootnotes(),
    document.getEndnotes(),
    document.getHeaders({ includeFooters: true }),
  ])
    for (const line of text.split('\n')) pieces.add(`${line}\n`)
  await pieces.handOver(sink, '')
}

const textOf = (cell: CellObject | undefined) => (cell ? String(cell.w ?? cell.v ?? '') : '')

/** Excel 97 to 2003 ([MS-XLS]). */
export async function readOldWorkbook(path: string, { sheet, row }: SheetHandlers): Promise<void> {
  const bytes = await bytesOf(path)
  let workbook
  try {
    workbook = read(bytes, { type: 'buffer', dense: true, cellFormula: false, cellHTML: false })
  } catch (error) {
    throw refusal(error)
  }
  for (const name of workbook.SheetNames) {
    sheet(name)
    // With `dense` cells lie in rows.
    for (const cells of (workbook.Sheets[name] as WorkSheet & { '!data'?: (CellObject | undefined)[][] })['!data'] ?? [])
      if (!row(Array.from(cells ?? [], textOf))) break
  }
}

export const readOldSheets: Reader = (path, sink) => readSheets(path, sink, readOldWorkbook)

// Records of [MS-PPT], 2.13.24.
const SLIDE = 0x03ee
const SLIDE_LIST = 0x0ff0
const SLIDE_IN_LIST = 0x03f3
const WIDE_TEXT = 0x0fa0
const NARROW_TEXT = 0x0fa8
/** deeper than any presentation nests its records */
const DEEPEST = 20

interface OldRecord {
  type: number
  instance: number
  content: Buffer
  /** it holds other records */
  holds: boolean
}

/** The records that lie in some bytes one behind the other ([MS-PPT], 2.3.1); what is cut off is left out. */
function* recordsIn(bytes: Buffer): Generator<OldRecord> {
  for (let at = 0; at + 8 <= bytes.length;) {
    const [head, type, length] = [bytes.readUInt16LE(at), bytes.readUInt16LE(at + 2), bytes.readUInt32LE(at + 4)]
    const content = bytes.subarray(at + 8, at + 8 + length)
    yield { type, instance: head >> 4, content, holds: (head & 15) === 15 }
    at += 8 + length
  }
}

/** The texts in a record, those of records in it too. */
function textsIn({ type, content, holds }: OldRecord, depth = 0): string[] {
  // Paragraphs end with a carriage return, lines in them with a vertical tab ([MS-PPT], 2.9.42).
  if (type === WIDE_TEXT) return [content.toString('utf16le').replace(/[\r\v]/g, '\n')]
  if (type === NARROW_TEXT) return [content.toString('latin1').replace(/[\r\v]/g, '\n')]
  return holds && depth < DEEPEST ? [...recordsIn(content)].flatMap(record => textsIn(record, depth + 1)) : []
}

/** The texts of each slide: those in its outline, and those that stand in boxes on it. */
function slidesIn(stream: Buffer): string[][] {
  const outlines: string[][] = []
  const boxes: string[][] = []
  for (const record of recordsIn(stream)) {
    if (record.type === SLIDE) boxes.push(textsIn(record))
    for (const { type, instance, content } of record.holds ? recordsIn(record.content) : []) {
      // Instances tell slides from masters and notes ([MS-PPT], 2.4.14.3).
      if (type !== SLIDE_LIST || instance !== 0) continue
      for (const inner of recordsIn(content)) {
        if (inner.type === SLIDE_IN_LIST) outlines.push([])
        else outlines.at(-1)?.push(...textsIn(inner))
      }
    }
  }
  return Array.from({ length: Math.max(outlines.length, boxes.length) }, (_, index) => [
    ...(outlines[index] ?? []),
    ...(boxes[index] ?? []),
  ])
}

/** PowerPoint 97 to 2003 ([MS-PPT]). */
export const readOldSlides: Reader = async (path, sink: Sink) => {
  const bytes = await bytesOf(path)
  let stream
  try {
    stream = cfb.find(cfb.read(bytes, { type: 'buffer' }), 'PowerPoint Document')
  } catch (error) {
    throw refusal(error)
  }
  if (!stream) throw new Unreadable('The presentation is damaged: its slides are missing.')
  const slides = slidesIn(Buffer.from(stream.content))
  sink.facts.pages = slides.length
  for (const [index, texts] of slides.entries()) if (!(await sink.take(`Slide ${index + 1}`, texts.join('\n')))) break
}
