import { readFile } from 'node:fs/promises'
import { parentPort } from 'node:worker_threads'
import papa from 'papaparse'
import type { CatalogueItem } from '../../core/catalogue/catalogue'
import { MOST_ENTRIES } from '../../core/catalogue/entry'
import type { ImportColumn, ImportPlan } from '../../core/catalogue/import'
import { PlanFault, columnsOf, firstPlan, planImport, withHeading, type GivenTable, type Planned } from '../../core/catalogue/planning'
import { fold } from '../../core/find/fold'
import { comeAfterVisitors } from './courtesy'
import { readOpenSpreadsheet, readWorkbook } from './readers/spreadsheet'
import { charsetAt } from './readers/text'

/** A file whose cells are read, to become entries of a catalogue, or of one that is new. */
export interface ReadTask {
  ask: 'read'
  path: string
  name: string
  catalogue: CatalogueItem | undefined
}
/** A table that was read, held against what is there. */
export interface PlanTask {
  ask: 'plan'
  table: GivenTable
  rows: string[][]
  /** files of the library by what tables may call them, folded */
  files: Map<string, string>
}
export type GridTask = ReadTask | PlanTask
export interface ReadGrid {
  rows: string[][]
  columns: ImportColumn[]
  /** rows below the heading */
  count: number
  plan: ImportPlan
}
export type GridAnswer = { read: ReadGrid } | { planned: Planned } | { fault: string } | { refused: string }

const WIDEST = 200
const LONGEST_CELL = 20_000
/** A heading more than there may be entries. */
const MOST_ROWS = MOST_ENTRIES + 1

class TooMuch extends Error {}
const tooLong = () => new TooMuch(`It has more than ${MOST_ENTRIES.toLocaleString('en')} rows. Bring it in parts.`)

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
  if (!Array.isArray(list) || !list.every(each => typeof each === 'object' && each !== null)) throw new TooMuch('It is no list of things.')
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

async function read({ path, name, catalogue }: ReadTask): Promise<GridAnswer> {
  try {
    const ending = name.toLowerCase().split('.').at(-1)!
    const rows =
      ending === 'xlsx' || ending === 'xlsm'
        ? await readSheets(path, readWorkbook)
        : ending === 'ods'
          ? await readSheets(path, readOpenSpreadsheet)
          : ending === 'json'
            ? await readJson(path)
            : await readCsv(path)
    if (!rows.length) return { fault: 'There is nothing in it.' }
    const { names, body } = withHeading(rows)
    if (!body.length) return { fault: 'There is a heading and nothing below it.' }
    const columns = columnsOf(names, body)
    return { read: { rows, columns, count: body.length, plan: firstPlan(columns, body, catalogue) } }
  } catch (error) {
    return { fault: error instanceof TooMuch ? error.message : 'It could not be read: it is no table, or damaged.' }
  }
}

function plan({ table, rows, files }: PlanTask): GridAnswer {
  try {
    const fileNamed = (name: string) => files.get(fold(name.split(/[\\/]/).at(-1)!.trim()))
    return { planned: planImport({ ...table, ...withHeading(rows), fileNamed }) }
  } catch (error) {
    if (error instanceof PlanFault) return { refused: error.message }
    throw error
  }
}

comeAfterVisitors()
parentPort!.on(
  'message',
  (task: GridTask) => void (async () => parentPort!.postMessage(task.ask === 'read' ? await read(task) : plan(task)))(),
)
