import { readRelations, withPackage, type OfficePackage } from './package'

/** Told of each sheet and row of a spreadsheet. */
export interface SheetHandlers {
  sheet: (name: string) => void
  /** false: no more of this sheet */
  row: (cells: string[]) => boolean
}

/** Shared texts are kept up to this many characters; cells beyond them stay empty. */
const MOST_SHARED = 50_000_000
const WIDEST = 2000

async function sharedTexts({ xml }: OfficePackage): Promise<string[]> {
  const texts: string[] = []
  let text = ''
  let [inText, inReading] = [false, false]
  let total = 0
  await xml('xl/sharedStrings.xml', {
    open(name) {
      if (name === 'si') text = ''
      // Phonetic readings stand beside the text, not in it.
      else if (name === 'rPh') inReading = true
      else if (name === 't') inText = !inReading
    },
    text: piece => inText && (text += piece),
    close(name) {
      if (name === 't') inText = false
      else if (name === 'rPh') inReading = false
      else if (name === 'si') {
        texts.push(text)
        total += text.length
      }
    },
    wanted: () => total < MOST_SHARED,
  })
  return texts
}

// Number formats that show dates (ECMA-376 part 1, 18.8.30).
const BUILT_IN_DATES = new Set([14, 15, 16, 17, 22, 27, 28, 29, 30, 31, 36, 50, 51, 52, 53, 54, 55, 56, 57, 58])
const isDateFormat = (format: string) => /[dy]/i.test(format.replace(/"[^"]*"|\[[^\]]*\]|\\./g, ''))

/** The sign or code of the currency that a number format shows: `[$€-407]`, `"£"`, `[$CHF]` (ECMA-376 part 1, 18.8.31). */
const currencyIn = (format: string): string => {
  const [, coded, plain] = /\[\$([^\]-]+)[^\]]*\]|(\p{Sc})/u.exec(format) ?? []
  return (coded ?? plain ?? '').trim()
}

/** What the format of a cell makes of its number. */
interface CellStyle {
  date: boolean
  /** sign or code of a currency */
  currency: string
}

/** How cell styles show numbers. */
async function numberStyles({ xml }: OfficePackage): Promise<CellStyle[]> {
  const dates = new Set(BUILT_IN_DATES)
  const currencies = new Map<number, string>()
  const styles: CellStyle[] = []
  let inCells = false
  await xml('xl/styles.xml', {
    open(name, attributes) {
      if (name === 'numFmt') {
        const [id, format] = [Number(attributes.numFmtId), attributes.formatCode ?? '']
        if (isDateFormat(format)) dates.add(id)
        currencies.set(id, currencyIn(format))
      } else if (name === 'cellXfs') inCells = true
      else if (name === 'xf' && inCells) {
        const id = Number(attributes.numFmtId)
        styles.push({ date: dates.has(id), currency: currencies.get(id) ?? '' })
      }
    },
    close: name => name === 'cellXfs' && (inCells = false),
  })
  return styles
}

/** `BC12` is column 54, counted from 0. */
export function columnOf(reference: string): number {
  let column = 0
  for (const letter of /^[A-Z]+/.exec(reference)?.[0] ?? '') column = column * 26 + letter.charCodeAt(0) - 64
  return column - 1
}

/** A serial date of a spreadsheet (days since 1899-12-30; ECMA-376 part 1, 18.17.4) in ISO 8601. */
export function serialDate(serial: number): string {
  const moment = new Date(Math.round((serial - 25569) * 86_400_000))
  if (Number.isNaN(moment.getTime())) return String(serial)
  const iso = moment.toISOString()
  return serial % 1 ? `${iso.slice(0, 10)} ${iso.slice(11, 16)}` : iso.slice(0, 10)
}

/** 0.1 + 0.2 is written as 0.30000000000000004; people see 15 digits. */
const plainNumber = (text: string) =>
  Number.isFinite(Number(text)) && text.length > 15 ? String(Number(Number(text).toPrecision(15))) : text

/** A number as its cell means it: a day, what something costs with its sign, or itself. */
function shown(value: string, style: CellStyle | undefined): string {
  if (style?.date) return serialDate(Number(value))
  return style?.currency ? `${style.currency} ${plainNumber(value)}` : plainNumber(value)
}

async function readSheet(
  { xml }: OfficePackage,
  name: string,
  texts: string[],
  styles: CellStyle[],
  row: SheetHandlers['row'],
): Promise<void> {
  let cells: string[] = []
  let [column, type, style] = [0, '', 0]
  let value = ''
  let inValue = false
  let more = true
  await xml(name, {
    open(tag, attributes) {
      if (tag === 'row') {
        cells = []
        column = -1
      } else if (tag === 'c') {
        column = attributes.r ? columnOf(attributes.r) : column + 1
        type = attributes.t ?? 'n'
        style = Number(attributes.s ?? 0)
        value = ''
      } else if (tag === 'v' || tag === 't') inValue = true
    },
    text: piece => inValue && (value += piece),
    close(tag) {
      if (tag === 'v' || tag === 't') {
        inValue = false
      } else if (tag === 'c' && column >= 0 && column < WIDEST && value !== '') {
        while (cells.length < column) cells.push('')
        if (type === 's') cells[column] = texts[Number(value)] ?? ''
        else if (type === 'b') cells[column] = value === '1' ? 'TRUE' : 'FALSE'
        else if (type === 'n') cells[column] = shown(value, styles[style])
        else cells[column] = value
      } else if (tag === 'row' && more) {
        more = row(cells)
      }
    },
    wanted: () => more,
  })
}

/** Reads a workbook of Office Open XML, sheet by sheet and row by row, without ever holding it whole. */
export const readWorkbook = (path: string, handlers: SheetHandlers): Promise<void> =>
  withPackage(path, async parts => {
    const sheets: { name: string; relation: string }[] = []
    await parts.xml('xl/workbook.xml', {
      open: (tag, { name, id }) => {
        if (tag === 'sheet') sheets.push({ name: name ?? '', relation: id ?? '' })
      },
    })
    const relations = await readRelations(parts, 'xl/_rels/workbook.xml.rels')
    const [texts, styles] = [await sharedTexts(parts), await numberStyles(parts)]
    for (const { name, relation } of sheets) {
      handlers.sheet(name)
      await readSheet(parts, `xl/${relations.get(relation) ?? ''}`, texts, styles, handlers.row)
    }
  })

/**
 * What a cell holds that shows a number or a day in the way of its author: the number as it is, the day in ISO 8601 (OpenDocument 1.3
 * part 3, 19.385 office:value-type). What it costs keeps its sign.
 */
function heldIn(attributes: Record<string, string | undefined>): string | undefined {
  const type = attributes['value-type']
  if (type === 'float') return attributes.value && plainNumber(attributes.value)
  const [day, time] = (type === 'date' && attributes['date-value']?.split('T')) || []
  return time && !/^00:00(?::00)?/.test(time) ? `${day} ${time.slice(0, 5)}` : day
}

/** Reads a spreadsheet of OpenDocument in the same way. */
export const readOpenSpreadsheet = (path: string, handlers: SheetHandlers): Promise<void> =>
  withPackage(path, async ({ xml }) => {
    let cells: string[] = []
    let value = ''
    let held: string | undefined
    let [inText, more] = [false, true]
    let repeat = 1
    await xml('content.xml', {
      open(tag, attributes) {
        if (tag === 'table') {
          handlers.sheet(attributes.name ?? '')
          more = true
        } else if (tag === 'table-row') {
          cells = []
        } else if (tag === 'table-cell' || tag === 'covered-table-cell') {
          value = ''
          held = heldIn(attributes)
          repeat = Math.min(WIDEST, Number(attributes['number-columns-repeated'] ?? 1))
        } else if (tag === 'p') {
          inText = true
          if (value) value += '\n'
        }
      },
      text: piece => inText && (value += piece),
      close(tag) {
        if (tag === 'p') inText = false
        else if (tag === 'table-cell' || tag === 'covered-table-cell')
          for (let copy = 0; copy < repeat && cells.length < WIDEST; copy++) cells.push(held ?? value)
        else if (tag === 'table-row' && more) {
          while (cells.at(-1) === '') cells.pop()
          more = handlers.row(cells)
        }
      },
    })
  })
