import { readFile } from 'node:fs/promises'
import papa from 'papaparse'
import { MOST_ENTRIES } from '../../core/catalogue/entry'
import { readOpenSpreadsheet, readWorkbook } from './readers/spreadsheet'
import { charsetAt } from './readers/text'

const WIDEST = 200
const LONGEST_CELL = 20_000
/** A heading more than there may be entries. */
const MOST_ROWS = MOST_ENTRIES + 1

/** A table that cannot come in, in words for people. */
export class NoGrid extends Error {}
const tooLong = () => new NoGrid(`It has more than ${MOST_ENTRIES.toLocaleString('en')} rows. Bring it in parts.`)

/** Takes rows as they come; empty ones are left out. */
function gatherer() {
  const rows: string[][] = []
  const take = (cells: unknown[]) => {
    const row = cells.slice(0, WIDEST).map(cell => (typeof cell === 'string' ? cell : '').slice(0, LONGEST_CELL))
    if (!row.some(cell => cell.trim())) return
    if (rows.length >= MOST_ROWS) throw tooLong()
    rows.push(row)
  }
  return { rows, take }
}

/** Cells that were told to be text, lest a table program takes them for formulas, without the mark that says so (`core/csvLine`). */
const plainCell = (cell: string) => cell.replace(/^'(?=[=+\-@\t\r])/, '')

async function readCsv(path: string): Promise<string[][]> {
  const text = new TextDecoder(await charsetAt(path)).decode(await readFile(path))
  const { rows, take } = gatherer()
  papa.parse<string[]>(text.replace(/^sep=(.)\r?\n/i, ''), {
    delimitersToGuess: [',', ';', '\t', '|'],
    // The one after the last line end would count as a row of one cell, and short tables be split by another sign.
    skipEmptyLines: true,
    step: ({ data }) => take(data.map(plainCell)),
  })
  return rows
}

const worded = (value: unknown): string =>
  value === null || value === undefined
    ? ''
    : typeof value === 'object'
      ? Array.isArray(value)
        ? value.map(worded).join('; ')
        : JSON.stringify(value)
      : String(value as string | number | boolean)

/** A list of objects: each name in any of them is a column. */
async function readJson(path: string): Promise<string[][]> {
  const parsed: unknown = JSON.parse(await readFile(path, 'utf8'))
  const list = Array.isArray(parsed) ? parsed : Object.values(parsed as object).find(Array.isArray)
  if (!Array.isArray(list) || !list.every(each => typeof each === 'object' && each !== null)) throw new NoGrid('It is no list of things.')
  const objects = list as Record<string, unknown>[]
  const names = [...new Set(objects.flatMap(each => Object.keys(each)))]
  const { rows, take } = gatherer()
  take(names)
  for (const each of objects) take(names.map(name => worded(each[name])))
  return rows
}

/** The first sheet of a workbook in which anything stands. */
async function readSheets(path: string, read: typeof readWorkbook): Promise<string[][]> {
  let { rows, take } = gatherer()
  let sheets = 0
  let over = false
  await read(path, {
    sheet() {
      if (sheets++ && rows.length < 1) ({ rows, take } = gatherer())
      else if (sheets > 1) over = true
    },
    row(cells) {
      if (over) return false
      take(cells)
      return true
    },
  })
  return rows
}

/**
 * The cells of a table, row by row; empty rows are left out.
 *
 * @param name says by its ending what it is: a workbook, JSON, or else CSV
 * @throws NoGrid where it is longer than a catalogue may be, or no table
 */
export function readGrid(path: string, name: string): Promise<string[][]> {
  const ending = name.toLowerCase().split('.').at(-1)!
  if (ending === 'xlsx' || ending === 'xlsm') return readSheets(path, readWorkbook)
  if (ending === 'ods') return readSheets(path, readOpenSpreadsheet)
  return ending === 'json' ? readJson(path) : readCsv(path)
}
