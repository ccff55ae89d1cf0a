import { TITLE, isFileKind, type Field } from '~~/core/catalogue/field'
import type { EntryItem, Value } from '~~/core/catalogue/entry'
import { PLAIN_FORMAT, decimalSign, readCell, sayValue, writeCell, type CellFormat } from '~~/core/catalogue/values'
import { fold } from '~~/core/find/fold'

/** What is read in a cell of the table. */
export function cellWords(field: Field, value: Value | undefined): string {
  if (value === undefined) return ''
  if (isFileKind(field.kind)) {
    const ids = Array.isArray(value) ? value : [value as string]
    const { known } = useLibrary()
    return ids.map(id => known.get(id)?.title ?? '…').join(', ')
  }
  if (typeof value === 'number') return useSpeech().speech.decimal(value, field.kind === 'money' ? 2 : field.decimals)
  if (typeof value === 'boolean') return value ? 'Yes' : 'No'
  return field.kind === 'choices' ? sayValue(field, value, useSpeech().speech) : writeCell(field, value)
}

/** Numbers are typed as the site's visitors read them. */
const formatOf = (): CellFormat => ({ ...PLAIN_FORMAT, decimal: decimalSign(useSpeech().speech), typed: true })

/** What is written in a cell as one edits or copies it. */
export function cellDraft(field: Field, value: Value | undefined): string {
  const { known } = useLibrary()
  const written = writeCell(field, value, id => known.get(id)?.title ?? id)
  return typeof value === 'number' ? written.replace('.', formatOf().decimal) : written
}

/** What was typed, as the value of a cell; null empties it. @throws Error in words for people */
export function readDraft(field: Field, text: string): Value | null {
  const read = readCell(field, text, formatOf(), { fileNamed })
  if ('fault' in read) throw new Error(`${field.name}: ${read.fault}`)
  return read.value ?? null
}

function fileNamed(name: string): string | undefined {
  const wanted = fold(name)
  for (const file of useLibrary().known.values())
    if (!file.deleted && [file.title, file.fileName, file.handle].some(each => fold(each) === wanted)) return file.id
  return undefined
}

/** Whether an entry has what is typed somewhere in it. */
export const holdsWords = (item: EntryItem, fields: Field[], words: string): boolean => {
  const all = fold(fields.map(field => cellWords(field, item.values[field.id])).join('\n'))
  return fold(words)
    .split(/\s+/)
    .every(word => all.includes(word))
}

/** Fields that hold files, or that an entry needs, with how many entries have nothing in them; only where some do. */
export const lacking = (items: EntryItem[], fields: Field[]): { field: Field; count: number }[] =>
  fields
    .filter(field => field.id !== TITLE && (isFileKind(field.kind) || field.required))
    .map(field => ({ field, count: items.filter(({ values }) => values[field.id] === undefined).length }))
    .filter(({ count }) => count > 0)
