import { cut } from '../cut'
import { newId } from '../id'
import type { Value, Values } from './entry'
import { isChoice, isFileKind, isMany, type Field } from './field'
import { CHOICES_APART, readSeveral } from '../several'
import { PLAIN_FORMAT, faultOf, readCell, writeCell } from './values'

/** What is written in a field that another field cannot hold. */
export interface Loss {
  field: string
  name: string
  /** entries that lose it */
  entries: number
  words: string
}

/** A value as a changed field holds it; undefined where it cannot. */
function refit(before: Field, after: Field, value: Value): Value | undefined {
  if (before.kind === after.kind && !isChoice(after.kind)) return value
  if (isFileKind(before.kind) || isFileKind(after.kind)) {
    const pictured = (kind: string) => kind === 'picture' || kind === 'pictures'
    // A file may be no picture; a picture is a file.
    if (!isFileKind(before.kind) || !isFileKind(after.kind) || (pictured(after.kind) && !pictured(before.kind))) return undefined
    const [first, ...more] = Array.isArray(value) ? value : [value as string]
    return isMany(after.kind) ? [first!, ...more] : more.length ? undefined : first
  }
  const same = isChoice(before.kind) && isChoice(after.kind)
  if (same) {
    const kept = (Array.isArray(value) ? value : [value as string]).filter(id => after.options.some(option => option.id === id))
    if (!kept.length) return undefined
    return isMany(after.kind) ? kept : kept.length > 1 ? undefined : kept[0]
  }
  const read = readCell(after, writeCell(before, value), PLAIN_FORMAT)
  const fitted = 'fault' in read ? undefined : read.value
  return fitted === undefined || faultOf(after, fitted) ? undefined : fitted
}

const isCut = (before: Field, after: Field, value: Value): boolean => {
  const fitted = refit(before, after, value)
  return fitted === undefined || (Array.isArray(value) && Array.isArray(fitted) && fitted.length < value.length)
}

/** What would be lost if the fields were others; those that are taken out lie in the bin with what is written in them. */
export function losses(before: Field[], after: Field[], all: Values[]): Loss[] {
  return before.flatMap((field): Loss[] => {
    const now = after.find(({ id }) => id === field.id)
    if (!now) return []
    const entries = all.filter(values => values[field.id] !== undefined && isCut(field, now, values[field.id]!)).length
    if (!entries) return []
    const count = entries === 1 ? '1 entry' : `${entries} entries`
    return [{ field: field.id, name: field.name, entries, words: `${count} would lose what is in “${field.name}”.` }]
  })
}

/** Values as other fields hold them; the same object where nothing changes. */
export function refitted(before: Field[], after: Field[], values: Values): Values {
  let changed = false
  const fitted: Values = {}
  for (const [id, value] of Object.entries(values)) {
    const [was, now] = [before.find(field => field.id === id), after.find(field => field.id === id)]
    const next = was && now ? refit(was, now, value) : undefined
    if (next !== undefined) fitted[id] = next
    if (JSON.stringify(next) !== JSON.stringify(value)) changed = true
  }
  return changed ? fitted : values
}

/**
 * A field that becomes one of choices has those that are written in it. Others stay as they are.
 *
 * @param written what entries have in it
 */
export function withChoicesFrom(before: Field, after: Field, written: (Value | undefined)[]): Field {
  if (!isChoice(after.kind) || isChoice(before.kind) || after.options.length) return after
  const words = written.map(value => writeCell(before, value))
  const names = isMany(after.kind) ? words.flatMap(each => readSeveral(each, CHOICES_APART)) : words
  const distinct = [...new Map(names.map(name => [name.trim().toLowerCase(), cut(name.trim(), 120)])).values()].filter(Boolean)
  return { ...after, options: distinct.slice(0, 200).map(name => ({ id: newId(8), name })) }
}
