import { readFile, stat } from 'node:fs/promises'
import { PDFiumLibrary, type PDFiumDocument } from '@hyzyla/pdfium'
import sharp from 'sharp'
import { hitsIn } from '../../../core/find/passage'
import type { Box } from '../../../core/see/sight'
import { WIDEST, keepPicture, toWebp } from './picture'
import { Unreadable, type Reader } from './reader'

/** The engine takes a PDF into its memory whole, and has two gigabytes of it. */
const LARGEST = 700_000_000

/** Memory only grows: past this many bytes the engine is started anew. */
const MOST_MEMORY = 400_000_000

let engine: Promise<PDFiumLibrary> | undefined

/** The engine of this worker; starting one takes longer than reading a short PDF. */
async function startedEngine(): Promise<PDFiumLibrary> {
  const running = await engine
  if (running && running['module'].HEAPU8.length < MOST_MEMORY) return running
  running?.destroy()
  engine = PDFiumLibrary.init()
  return engine
}

/**
 * Opens a PDF, hands it to the work, and gives everything back.
 *
 * @throws Unreadable where it is locked, damaged or too large
 */
export async function withPdf<T>(path: string, work: (document: PDFiumDocument) => Promise<T>): Promise<T> {
  if ((await stat(path)).size > LARGEST) throw new Unreadable('The PDF is over 700 MB: Trough serves it, but does not look inside.')
  const library = await startedEngine()
  const document = await library.loadDocument(await readFile(path)).catch((error: Error) => {
    if (/password/i.test(error.message))
      throw new Unreadable('The PDF is locked with a password: visitors need it, too. Save it without one to be found by its words.')
    throw new Unreadable('The PDF is damaged or cut off: many visitors will not be able to open it. Export it again and put it in.')
  })
  try {
    return await work(document)
  } finally {
    document.destroy()
  }
}

/** The text of a page. */
function textOf(document: PDFiumDocument, index: number): string {
  const page = document.getPage(index)
  try {
    // U+FFFE stands where a word was broken at the end of a line.
    return page.getText().replace(/\uFFFE\s*/g, '')
  } finally {
    document['module']._FPDF_ClosePage(page['pageIdx'])
  }
}

/** One entry of a PDF's document information (ISO 32000-1, 14.3.3), such as "Title". */
function information(document: PDFiumDocument, tag: string): string {
  const [module, index] = [document['module'], document['documentIdx']]
  const key = Buffer.from(`${tag}\0`)
  const keyAt = module.wasmExports.malloc(key.length)
  module.HEAPU8.set(key, keyAt)
  const length = module._FPDF_GetMetaText(index, keyAt, 0, 0)
  const textAt = module.wasmExports.malloc(Math.max(2, length))
  try {
    module._FPDF_GetMetaText(index, keyAt, textAt, length)
    // UTF-16LE with a NUL at its end.
    return Buffer.from(module.HEAPU8.buffer, textAt, Math.max(0, length - 2))
      .toString('utf16le')
      .trim()
      .slice(0, 500)
  } finally {
    module.wasmExports.free(keyAt)
    module.wasmExports.free(textAt)
  }
}

/** `D:20261102090000Z` as a day in ISO 8601 (ISO 32000-1, 7.9.4); undefined where it is none. */
export function pdfDay(date: string): string | undefined {
  const [, year, month, day] = /^(?:D:)?(\d{4})(\d\d)(\d\d)/.exec(date) ?? []
  const iso = `${year}-${month}-${day}`
  return year && !Number.isNaN(Date.parse(iso)) ? iso : undefined
}

/** Draws a page; gives what makes it a WebP of some width in pixels, while the engine can go on. */
export async function drawPage(document: PDFiumDocument, index: number, width: number): Promise<() => Promise<Buffer>> {
  const page = document.getPage(index)
  const { originalWidth, originalHeight } = page.getOriginalSize()
  const scale = Math.min(4, width / Math.max(1, originalWidth), (width * 3) / Math.max(1, originalHeight))
  // Drawing gives the page back by itself.
  const bitmap = await page.render({ scale, render: 'bitmap' })
  return () =>
    toWebp(sharp(bitmap.data, { raw: { width: bitmap.width, height: bitmap.height, channels: 4 } }), { width, height: width * 3 })
}

/** Units into which a page is divided each way while places on it are worked out. */
const GRID = 10_000
/** Letters of a page that are looked through; a page of close print has some 8,000. */
const MOST_LETTERS = 200_000

/**
 * Where on a page words begin that are looked for, as visitors see it: turned and cut as the PDF says. A word that is broken at the end
 * of a line is not found.
 *
 * @param terms folded words, or the beginnings of words
 */
export function placesOnPage(document: PDFiumDocument, index: number, terms: string[]): Box[] {
  const page = document.getPage(index)['pageIdx']
  const module = document['module']
  const text = module._FPDFText_LoadPage(page)
  const letters = Math.min(MOST_LETTERS, module._FPDFText_CountChars(text))
  // Two bytes a letter and a NUL at the end, or the four numbers of a place.
  const room = module.wasmExports.malloc(Math.max(32, 2 * (letters + 1)))
  try {
    const taken = module._FPDFText_GetText(text, 0, letters, room)
    const written = Buffer.from(module.HEAPU8.buffer, room, Math.max(0, 2 * (taken - 1))).toString('utf16le')
    return hitsIn(written, terms).flatMap(({ start, end }) => {
      const [first, last] = [start, end - 1].map(at => module._FPDFText_GetCharIndexFromTextIndex(text, at))
      const count = module._FPDFText_CountRects(text, first!, last! - first! + 1)
      return Array.from({ length: Math.max(0, count) }, (_, each): Box => {
        const at = (part: number) => room + 8 * part
        module._FPDFText_GetRect(text, each, at(0), at(1), at(2), at(3))
        const numbers = new DataView(module.HEAPU8.buffer)
        const [left, top, right, bottom] = [0, 1, 2, 3].map(part => numbers.getFloat64(at(part), true))
        const corner = (x: number, y: number) => {
          module._FPDF_PageToDevice(page, 0, 0, GRID, GRID, 0, x, y, room, room + 4)
          return [numbers.getInt32(room, true) / GRID, numbers.getInt32(room + 4, true) / GRID] as const
        }
        const [[x1, y1], [x2, y2]] = [corner(left!, top!), corner(right!, bottom!)]
        return { x: Math.min(x1, x2), y: Math.min(y1, y2), width: Math.abs(x2 - x1), height: Math.abs(y2 - y1) }
      })
    })
  } finally {
    module.wasmExports.free(room)
    module._FPDFText_ClosePage(text)
    module._FPDF_ClosePage(page)
  }
}

/** Pages, title, author, date, words, and the first page's picture. */
export const readPdf: Reader = (path, sink) =>
  withPdf(path, async document => {
    const pages = document.getPageCount()
    if (!pages) throw new Unreadable('The PDF has no pages: a visitor would see nothing. Export it again and put it in.')
    sink.facts.pages = pages
    const [title, author, modified, created] = ['Title', 'Author', 'ModDate', 'CreationDate'].map(tag => information(document, tag))
    if (title) sink.facts.documentTitle = title
    if (author) sink.facts.author = author
    const dated = pdfDay(modified!) ?? pdfDay(created!)
    if (dated) sink.facts.dated = dated
    const picture = await drawPage(document, 0, WIDEST)
    // A failed picture is met below; the words are read meanwhile.
    const kept = picture()
      .then(async bytes => {
        const { width, height } = await sharp(bytes).metadata()
        sink.facts.cover = { width, height }
        await keepPicture(sink.picture, bytes)
      })
      .then(
        () => undefined,
        (error: Error) => error,
      )
    sink.pictured = true
    let words = false
    for (let index = 0; index < pages; index++) {
      const text = textOf(document, index)
      words ||= text.trim() !== ''
      if (!(await sink.take(`Page ${index + 1}`, text))) break
    }
    if (!words) sink.facts.scanned = true
    const failure = await kept
    if (!failure) return
    sink.pictured = false
    throw failure
  })
