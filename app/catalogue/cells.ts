import { TITLE, isFileKind, type Field } from '~~/core/catalogue/field'
import type { EntryItem, Value } from '~~/core/catalogue/entry'
import { PLAIN_FORMAT, readCell, writeCell } from '~~/core/catalogue/values'
import { fold } from '~~/core/find/fold'

/** What is read in a cell of the table. */
export function cellWords(field: Field, value: Value | undefined): string {
  if (value === undefined) return ''
  if (isFileKind(field.kind)) {
    const ids = Array.isArray(value) ? value : [value as string]
    const { known } = useLibrary()
    return ids.map(id => known.get(id)?.title ?? '…').join(', ')
  }
  if (typeof value === 'number') return useSession().speech.decimal(value, field.kind === 'money' ? 2 : field.decimals)
  if (typeof value === 'boolean') return value ? 'Yes' : 'No'
  return writeCell(field, value)
}

/** What is written in a cell as one edits it. */
export const cellDraft = (field: Field, value: Value | undefined): string =>
  isFileKind(field.kind) ? cellWords(field, value) : writeCell(field, value)

/** How numbers are written where the site speaks so: what is typed is read in the same way. */
function formatOf() {
  const decimal = useSession().speech.decimal(1.5, 1).includes(',') ? ',' : '.'
  return { ...PLAIN_FORMAT, decimal } as const
}

/** What was typed, as the value of a cell; null empties it. @throws Error in words for people */
export function readDraft(field: Field, text: string): Value | null {
  // A plain number, as it is shown while it is edited, is one in every language.
  const plain = /^-?\d+(?:\.\d+)?$/.test(text.trim()) ? PLAIN_FORMAT : formatOf()
  const read = readCell(field, text, plain, { fileNamed })
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
