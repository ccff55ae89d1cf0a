import { mayBeFileName } from './match'
import { cut } from '../cut'
import { fold } from '../find/fold'
import { newId } from '../id'
import { addressSchema, emailSchema, phoneSchema } from '../page/outsideTargets'
import type { CatalogueItem } from './catalogue'
import type { Values } from './entry'
import { MOST_OPTIONS, TITLE, isChoice, newField, type Field, type FieldKind, type Option } from './field'
import type { ImportColumn, ImportCounts, ImportPlan, Mapping, WrongCell } from './import'
import { initialValues, readCell, readDay, readNumber, titleOf, writeCell, type CellFormat } from './values'

const SAMPLES = 4
const TOLD_FAULTS = 200

/** Names that stand above a column in tables of shops, in the languages sites have (common practice). */
const NAMES =
  /^(?:name|title|product|item|course|artikel|bezeichnung|titel|nom|produit|titre|nombre|producto|titulo|nome|prodotto|titolo|produto|naam|nazwa|produkt)$/
const KEYS = /^(?:.*\b)?(?:no|nr|number|num|id|sku|code|ref|reference|nummer|artikelnummer|kodas?|kod|codigo|codice|article no|item no)\.?$/
const PHONES = /phone|tel|mobil|fax/
const PRICES = /price|preis|prix|precio|prezzo|preco|prijs|cena|cost/
const PICTURES = /\.(?:png|jpe?g|gif|webp|avif|heic)$/i
/** A sign of a currency, or its three letters before a number (ISO 4217). */
const MONEY = /\p{Sc}|zł|^[A-Z]{3}\s?\d/u
const CURRENCIES: Record<string, string> = { '€': 'EUR', '$': 'USD', '£': 'GBP', '¥': 'JPY', 'zł': 'PLN' }

const headed = (rows: string[][]): boolean => {
  const [first = [], ...others] = rows
  const filled = first.filter(cell => cell.trim())
  return (
    others.length > 0 &&
    filled.length > 0 &&
    new Set(filled.map(fold)).size === filled.length &&
    filled.every(cell => readNumber(cell, { decimal: '.' }) === undefined && readDay(cell, { dayFirst: true }) === undefined)
  )
}

/** The rows of a table below its heading, and that; made up where it has none. */
export function withHeading(rows: string[][]): { names: string[]; body: string[][]; first: number } {
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0)
  const has = headed(rows)
  const taken = new Map<string, number>()
  const names = Array.from({ length: width }, (_, at) => {
    const name = cut((has ? (rows[0]![at] ?? '') : '').trim(), 80) || `Column ${at + 1}`
    const times = (taken.get(fold(name)) ?? 0) + 1
    taken.set(fold(name), times)
    return times > 1 ? `${cut(name, 76)} ${times}` : name
  })
  return { names, body: has ? rows.slice(1) : rows, first: has ? 2 : 1 }
}

const formatOf = (cells: string[]): CellFormat => {
  const commas = cells.filter(cell => /\d,\d{1,2}(?!\d)/.test(cell) && !/\.\d/.test(cell.replace(/\.\d{3}\b/g, ''))).length
  const dots = cells.filter(cell => /\d\.\d{1,2}(?!\d)/.test(cell)).length
  const days = cells.flatMap(cell => {
    const parts = /^(\d{1,2})[./-](\d{1,2})[./-]\d{4}$/.exec(cell)
    return parts ? [{ first: Number(parts[1]), second: Number(parts[2]) }] : []
  })
  const dayFirst = !days.length || days.some(({ first }) => first > 12) || days.every(({ second }) => second <= 12)
  return { decimal: commas > dots ? ',' : '.', dayFirst }
}

function kindOf(name: string, cells: string[], format: CellFormat): FieldKind {
  const all = (test: (cell: string) => boolean) => cells.length > 0 && cells.every(test)
  const called = fold(name)
  if (all(cell => /^(?:yes|no|true|false|ja|nein|oui|non|si|nee|sim|nao|tak|nie)$/.test(fold(cell)))) return 'yesNo'
  if (all(cell => readDay(cell, format) !== undefined)) return 'date'
  if (all(cell => readNumber(cell, format) !== undefined)) {
    // Numbers that begin with 0, as of parts, are names.
    if (cells.some(cell => /^0\d/.test(cell.trim()))) return PHONES.test(called) ? 'phone' : 'text'
    return cells.some(cell => MONEY.test(cell)) || PRICES.test(called) ? 'money' : KEYS.test(called) ? 'text' : 'number'
  }
  if (all(cell => emailSchema.safeParse(cell.trim()).success)) return 'email'
  if (all(cell => /^https?:\/\//i.test(cell.trim()) && addressSchema.safeParse(cell.trim()).success)) return 'link'
  if (PHONES.test(called) && all(cell => phoneSchema.safeParse(cell.trim()).success)) return 'phone'
  if (all(cell => PICTURES.test(cell.trim()))) return 'picture'
  if (all(cell => mayBeFileName(cell.trim()))) return 'file'
  if (cells.some(cell => cell.length > 100 || cell.includes('\n'))) return 'longText'
  const distinct = new Set(cells.map(cell => fold(cell.trim())))
  const short = cells.every(cell => cell.trim().length <= 40)
  return short && cells.length >= 6 && distinct.size >= 2 && distinct.size <= Math.min(12, cells.length / 2) ? 'choice' : 'text'
}

/** What the columns of a table are, as far as it can be told from what is in them. */
export function columnsOf(names: string[], body: string[][]): ImportColumn[] {
  return names.map((name, at) => {
    const cells = body.map(row => (row[at] ?? '').trim()).filter(Boolean)
    const format = formatOf(cells)
    const kind = kindOf(name, cells, format)
    const symbol = cells.map(cell => MONEY.exec(cell)?.[0].replace(/\s?\d/, '')).find(Boolean) ?? ''
    const units = new Set(cells.map(cell => /\d\s*([\p{L}°²³µ%/]+)$/u.exec(cell)?.[1] ?? ''))
    return {
      name,
      samples: [...new Set(cells)].slice(0, SAMPLES).map(cell => cut(cell, 80)),
      filled: cells.length,
      ...format,
      kind,
      unit: kind === 'number' && units.size === 1 ? cut([...units][0]!, 20) : '',
      currency: CURRENCIES[symbol] ?? (/^[A-Z]{3}$/.test(symbol) ? symbol : 'EUR'),
    }
  })
}

const isDistinct = (body: string[][], at: number) => {
  const cells = body.map(row => fold((row[at] ?? '').trim()))
  return cells.every(Boolean) && new Set(cells).size === cells.length
}

/** The column that names entries: by what stands above it, or the first of words that are all different. */
function titleColumn(columns: ImportColumn[], body: string[][]): number {
  const named = columns.findIndex(({ name }) => NAMES.test(fold(name)))
  if (named >= 0) return named
  const distinct = columns.findIndex(
    ({ kind }, at) => kind === 'text' && isDistinct(body, at) && body.some(row => /\p{L}/u.test(row[at] ?? '')),
  )
  return Math.max(0, distinct)
}

/** Where columns go where nothing is said: into fields of the same name, or new ones. */
export function firstPlan(columns: ImportColumn[], body: string[][], catalogue: CatalogueItem | undefined): ImportPlan {
  const title = titleColumn(columns, body)
  const used = new Set<string>()
  const mapping = columns.map((column, at): Mapping[number] => {
    const same = catalogue?.fields.find(field => fold(field.name) === fold(column.name) && !used.has(field.id))
    const field = same?.id ?? (at === title && !used.has(TITLE) ? TITLE : undefined)
    if (field) {
      used.add(field)
      return { to: 'field', field }
    }
    return column.filled ? { to: 'new', name: column.name, kind: column.kind } : { to: 'nowhere' }
  })
  // The name is needed: another column that took it by its heading keeps it.
  if (!used.has(TITLE)) mapping[title] = { to: 'field', field: TITLE }
  const byField = catalogue?.key ? mapping.findIndex(each => each.to === 'field' && each.field === catalogue.key) : -1
  const numbered = columns.findIndex(({ name }, at) => KEYS.test(fold(name)) && isDistinct(body, at))
  const key = byField >= 0 ? byField : catalogue?.key === null && catalogue.entries ? -1 : numbered
  return {
    catalogue: catalogue?.id ?? null,
    name: '',
    one: '',
    mapping,
    key: key >= 0 ? key : null,
    others: 'stay',
    follow: false,
    despite: false,
  }
}

export interface Known {
  id: string
  values: Values
}

/** What a row becomes. */
export interface PlannedRow {
  /** the entry it changes; undefined where it is a new one */
  entry: string | undefined
  /** all values of the entry as it will be */
  values: Values
  /** those that the table has: what it does not say stays as it is by then */
  read: Values
}

export interface Planned {
  fields: Field[]
  /** new and changed ones */
  rows: PlannedRow[]
  counts: ImportCounts
  /** entries that are not in the table */
  others: string[]
  /** the first cells that cannot come in */
  wrong: WrongCell[]
  /** the field that tells entries apart */
  key: string
}

/** What is refused of a plan, before a row is looked at. */
export class PlanFault extends Error {}

/** What is known of a table, and what it is held against. */
export interface GivenTable {
  columns: ImportColumn[]
  plan: ImportPlan
  fields: Field[]
  entries: Known[]
}
interface Given extends GivenTable {
  body: string[][]
  /** row of the table that the first of the body is, as spreadsheets count */
  first: number
  fileNamed: (name: string) => string | undefined
}

/** The fields of the catalogue with those that the plan makes, and the field of each column. */
function plannedFields({ plan, columns, fields }: Given): { fields: Field[]; of: (Field | undefined)[] } {
  const all = fields.map(field => ({ ...field, options: [...field.options] }))
  const of = columns.map((column, at): Field | undefined => {
    const to = plan.mapping[at]
    if (!to || to.to === 'nowhere') return undefined
    if (to.to === 'field') {
      const field = all.find(({ id }) => id === to.field)
      if (!field) throw new PlanFault(`The field for “${column.name}” is gone. Choose another.`)
      return field
    }
    if (all.some(({ name }) => fold(name) === fold(to.name)))
      throw new PlanFault(`There is a field “${to.name}” already. Call the new one otherwise.`)
    const field = newField(newId(8), to.name, to.kind, { unit: column.unit, currency: column.currency })
    all.push(field)
    return field
  })
  const doubled = of.find((field, at) => field && of.indexOf(field) !== at)
  if (doubled) throw new PlanFault(`Two columns go into “${doubled.name}”. Send one of them elsewhere.`)
  if (!of.some(field => field?.id === TITLE)) throw new PlanFault('No column names the entries. Choose the one that does.')
  return { fields: all, of }
}

/**
 * What comes of a table: new entries, changed ones, and what is wrong with it. What is empty in the table stays as it is.
 *
 * @throws PlanFault where the plan itself cannot be
 */
export function planImport(given: Given): Planned {
  const { columns, body, first, plan, entries, fileNamed } = given
  const { fields, of } = plannedFields(given)
  const keyField = (plan.key === null ? undefined : of[plan.key]) ?? fields[0]!
  const keyColumn = of.indexOf(keyField)
  const keyed = (values: Values) => fold(writeCell(keyField, values[keyField.id]))
  const known = new Map(entries.map(entry => [keyed(entry.values), entry]))
  const seen = new Map<string, number>()
  const named = new Set<string>()
  const wrong: WrongCell[] = []
  const counts: ImportCounts = { new: 0, changed: 0, same: 0, others: 0, left: 0, wrong: 0 }
  const tell = (row: number, column: string, words: string) => void (wrong.length < TOLD_FAULTS && wrong.push({ row, column, words }))
  const options = new Map(
    fields.filter(({ kind }) => isChoice(kind)).map(field => [field.id, new Map(field.options.map(each => [fold(each.name), each.id]))]),
  )
  const optionNamed = (field: Field) => (name: string) => {
    const those = options.get(field.id)!
    const there = those.get(fold(name))
    if (there || field.options.length >= MOST_OPTIONS) return there
    const option: Option = { id: newId(8), name: cut(name, 120) }
    field.options.push(option)
    those.set(fold(name), option.id)
    return option.id
  }
  const rows: PlannedRow[] = []
  const begin = initialValues(fields)
  const uniques = new Map(
    fields
      .filter(({ unique }) => unique)
      .map(field => [
        field.id,
        new Map(
          entries.flatMap(({ id, values }) =>
            values[field.id] === undefined ? [] : [[fold(writeCell(field, values[field.id])), id] as const],
          ),
        ),
      ]),
  )
  body.forEach((cells, at) => {
    const row = at + first
    const read: Values = {}
    let faults = 0
    of.forEach((field, column) => {
      if (!field) return
      const { decimal, dayFirst } = columns[column]!
      const said = readCell(
        field,
        cells[column] ?? '',
        { decimal, dayFirst },
        { fileNamed, ...(isChoice(field.kind) && { optionNamed: optionNamed(field) }) },
      )
      if ('fault' in said) {
        faults++
        tell(row, columns[column]!.name, said.fault)
      } else if (said.value !== undefined) read[field.id] = said.value
    })
    counts.wrong += faults
    const key = keyed(read)
    if (!key) {
      counts.left++
      tell(row, columns[keyColumn]!.name, 'It is empty: nothing tells which entry this is.')
      return
    }
    const earlier = seen.get(key)
    if (earlier !== undefined) {
      counts.left++
      tell(row, columns[keyColumn]!.name, `It is the same as in row ${earlier}.`)
      return
    }
    seen.set(key, row)
    const entry = known.get(key)
    const values = { ...(entry ? entry.values : begin), ...read }
    if (!titleOf(values)) {
      counts.left++
      tell(row, columns[of.findIndex(field => field?.id === TITLE)]!.name, 'The name is empty.')
      return
    }
    for (const [id, holders] of uniques) {
      const field = fields.find(each => each.id === id)!
      const word = fold(writeCell(field, values[id]))
      const holder = word ? holders.get(word) : undefined
      if (holder !== undefined && holder !== entry?.id) {
        counts.left++
        tell(row, field.name, 'Another entry has it, and no two may have the same.')
        return
      }
      if (word) holders.set(word, entry?.id ?? `row ${row}`)
    }
    if (entry) named.add(entry.id)
    const same = entry && JSON.stringify(sorted(entry.values)) === JSON.stringify(sorted(values))
    if (same) counts.same++
    else {
      if (entry) counts.changed++
      else counts.new++
      rows.push({ entry: entry?.id, values, read })
    }
  })
  const others = entries.filter(({ id }) => !named.has(id)).map(({ id }) => id)
  counts.others = others.length
  return { fields, rows, counts, others, wrong, key: keyField.id }
}

const sorted = (values: Values) => Object.entries(values).sort(([a], [b]) => (a < b ? -1 : 1))

/** A name for a catalogue, by that of the file it comes from: of all, and of one. */
export function namesFrom(fileName: string): { name: string; one: string } {
  const words = fileName
    .replace(/\.[^.]*$/, '')
    .replace(/[_-]+/g, ' ')
    .replace(/\b(?:\d{4}|\d{1,2}|export|list|table|copy|final|v\d+)\b/gi, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 60)
  const name = words ? words[0]!.toUpperCase() + words.slice(1) : 'Entries'
  const lower = name.toLowerCase()
  const one = lower.endsWith('ies')
    ? `${lower.slice(0, -3)}y`
    : /(?:ss|us|is)$/.test(lower)
      ? lower
      : /(?:s|x|ch|sh)es$/.test(lower)
        ? lower.slice(0, -2)
        : lower.replace(/s$/, '')
  return { name, one: one || lower }
}
