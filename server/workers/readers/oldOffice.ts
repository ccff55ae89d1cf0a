import { read, type CellObject, type WorkSheet } from '@e965/xlsx'
import WordExtractor from 'word-extractor'
import { Pieces, readSheets } from './pieces'
import type { Reader } from './reader'
import type { SheetHandlers } from './spreadsheet'
import { bytesOf, refusal } from './wholeDocument'

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
