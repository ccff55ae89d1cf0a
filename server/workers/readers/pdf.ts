import { readFile, stat } from 'node:fs/promises'
import { PDFiumLibrary, type PDFiumDocument } from '@hyzyla/pdfium'
import sharp from 'sharp'
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
    for (let index = 0; index < pages; index++) {
      if (!(await sink.take(`Page ${index + 1}`, textOf(document, index)))) break
    }
    const failure = await kept
    if (!failure) return
    sink.pictured = false
    throw failure
  })
