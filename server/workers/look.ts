import { open } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { parentPort } from 'node:worker_threads'
import type { PDFiumDocument } from '@hyzyla/pdfium'
import mammoth from 'mammoth'
import MarkdownIt from 'markdown-it'
import papa from 'papaparse'
import { isDiskFull } from '../../core/diskFull'
import { withoutPlaces } from '../../core/files/withoutPlaces'
import { charsetOf } from '../../core/files/charset'
import { contentsKind, type Contents, type Sheet } from '../../core/files/fileContents'
import { isZip } from '../../core/files/mediaType'
import type { Box } from '../../core/see/sight'
import { cleanHtml } from './readers/clean'
import { withZip } from './readers/archive'
import { readOldWorkbook } from './readers/oldOffice'
import { withPackage } from './readers/package'
import { listPacked, type Listed } from './readers/packed'
import { drawPage, placesOnPage, withPdf } from './readers/pdf'
import { drawPicture, keepPicture } from './readers/picture'
import { Unreadable } from './readers/reader'
import { charsetAt, piecesOf } from './readers/text'
import { readOpenSpreadsheet, readWorkbook } from './readers/spreadsheet'

export type LookTask =
  /** draws a page, counted from 0, some pixels wide */
  | { path: string; page: number; width: number; picture: string }
  /** finds words on a page, counted from 0 */
  | { path: string; page: number; find: string[] }
  /** draws a picture, at most some pixels wide */
  | { path: string; width: number; picture: string }
  | { path: string; mediaType: string }
export type LookMessage =
  { drawn: Uint8Array; /** it need not be drawn again */ kept: boolean } | { places: Box[] } | { contents: Contents } | { trouble: string }

const MOST_CHARACTERS = 400_000
const MOST_ROWS = 500
const MOST_COLUMNS = 60
const MOST_ENTRIES = 5000
/** A document's XML, unpacked; a longer one would take the reader's memory. */
const MOST_DOCUMENT = 60_000_000

async function beginningOf(path: string): Promise<{ text: string; cut: boolean }> {
  const handle = await open(path, 'r')
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(MOST_CHARACTERS), 0, MOST_CHARACTERS, 0)
    const cut = (await handle.stat()).size > bytesRead
    const beginning = buffer.subarray(0, bytesRead)
    return { text: new TextDecoder(charsetOf(beginning) ?? 'utf-8').decode(beginning, { stream: cut }), cut }
  } finally {
    await handle.close()
  }
}

const narrow = (cells: string[]) => cells.slice(0, MOST_COLUMNS)

/** The first rows of a file whose cells are parted by a character. */
async function readTable(path: string, fileType: string): Promise<Sheet[]> {
  const pieces = Readable.from(piecesOf(path, await charsetAt(path)))
  const rows: string[][] = []
  return new Promise((resolve, reject) => {
    papa.parse<string[]>(pieces, {
      delimiter: fileType.includes('tab') ? '\t' : '',
      skipEmptyLines: 'greedy',
      preview: MOST_ROWS + 1,
      step: ({ data }) => void rows.push(narrow(data)),
      complete: () => resolve([{ name: '', rows: rows.slice(0, MOST_ROWS), cut: rows.length > MOST_ROWS }]),
      error: reject,
    })
  })
}

const sheetReader = (mediaType: string) =>
  mediaType.includes('opendocument') ? readOpenSpreadsheet : mediaType.includes('ms-excel') ? readOldWorkbook : readWorkbook

async function readSheets(path: string, mediaType: string): Promise<Sheet[]> {
  if (mediaType.startsWith('text/')) return readTable(path, mediaType)
  const sheets: Sheet[] = []
  await sheetReader(mediaType)(path, {
    sheet: name => sheets.push({ name, rows: [], cut: false }),
    row(cells) {
      const sheet = sheets.at(-1)!
      sheet.cut = sheet.rows.length >= MOST_ROWS
      if (!sheet.cut) sheet.rows.push(narrow(cells))
      return !sheet.cut
    },
  })
  return sheets
}

async function readDocument(path: string): Promise<string> {
  // Read once by the guarded reader: it refuses what would blow up the next.
  let size = 0
  await withPackage(path, async ({ names, xml }) => {
    for (const name of names.filter(part => part.endsWith('.xml')))
      await xml(name, { text: text => (size += text.length), open: () => (size += 20) })
  })
  if (size > MOST_DOCUMENT) throw new Unreadable('The document is too long to be shown here. Visitors can download it.')
  return cleanHtml((await mammoth.convertToHtml({ path })).value)
}

async function readEntries(path: string, mediaType: string): Promise<Contents> {
  const entries: Listed[] = []
  const take = (file: Listed) => entries.push(file) <= MOST_ENTRIES
  if (isZip(mediaType))
    await withZip(path, async files => {
      for await (const { name, size, encrypted } of files) if (!take({ name, size, locked: encrypted })) break
    })
  else await listPacked(path, take)
  return { kind: 'entries', entries: entries.slice(0, MOST_ENTRIES), cut: entries.length > MOST_ENTRIES }
}

/** What is in a file, as far as it is shown. */
export async function contentsOf(path: string, mediaType: string): Promise<Contents> {
  switch (contentsKind(mediaType)) {
    case 'document':
      return { kind: 'document', html: await readDocument(path) }
    case 'sheets':
      return { kind: 'sheets', sheets: await readSheets(path, mediaType) }
    case 'entries':
      return readEntries(path, mediaType)
    case 'markdown':
      return { kind: 'document', html: cleanHtml(new MarkdownIt({ html: false, linkify: false }).render((await beginningOf(path)).text)) }
    case 'text':
      return { kind: 'text', ...(await beginningOf(path)) }
    default:
      throw new Unreadable('There is nothing to show of this kind of file.')
  }
}

/** What is drawn is shown although a full disk cannot keep it. */
async function keptWherePossible(path: string, drawn: Buffer): Promise<LookMessage> {
  try {
    await keepPicture(path, drawn)
    return { drawn, kept: true }
  } catch (error) {
    if (!isDiskFull(error)) throw error
    return { drawn, kept: false }
  }
}

/** @throws Unreadable where the PDF has no such page */
const withPage = <T>({ path, page }: { path: string; page: number }, work: (document: PDFiumDocument) => Promise<T>): Promise<T> =>
  withPdf(path, async document => {
    if (page >= document.getPageCount()) throw new Unreadable('The PDF has no such page.')
    return work(document)
  })

async function look(task: LookTask): Promise<LookMessage> {
  try {
    if ('mediaType' in task) return { contents: await contentsOf(task.path, task.mediaType) }
    if (!('page' in task)) {
      return await keptWherePossible(task.picture, await drawPicture(task.path, task.width))
    }
    if ('find' in task) return { places: await withPage(task, async document => placesOnPage(document, task.page, task.find)) }
    const page = await withPage(task, async document => (await drawPage(document, task.page, task.width))())
    return await keptWherePossible(task.picture, page)
  } catch (error) {
    if (!(error instanceof Error)) throw error
    return { trouble: error instanceof Unreadable ? error.message : `It could not be opened: ${withoutPlaces(error.message)}` }
  }
}

parentPort?.on('message', async (task: LookTask) => parentPort!.postMessage(await look(task)))
