import { cut } from '../cut'
import { fold } from '../find/fold'
import { addressSchema, emailSchema, phoneSchema } from '../page/outsideTargets'
import type { Speech } from '../language/speech'
import { optionOf } from './catalogue'
import type { Value, Values } from './entry'
import { TITLE, isFileKind, isMany, type Field } from './field'
import { CHOICES_APART, FILES_APART, readSeveral, writeSeveral } from '../several'

const LONGEST = { text: 500, place: 500, longText: 20_000 } as const

/** How numbers and dates are written in a table that comes from elsewhere. */
export interface CellFormat {
  /** between whole and broken part */
  decimal: '.' | ','
  /** 3/4 is the third of April */
  dayFirst: boolean
  /** by people, who may write a number as elsewhere: read so where it cannot be read otherwise */
  typed?: boolean
}
export const PLAIN_FORMAT: CellFormat = { decimal: '.', dayFirst: true }

/** A value that was read, nothing where there is none, or what is wrong with what was written. */
export type Read = { value?: Value } | { fault: string }

const isoDay = (year: number, month: number, day: number): string | undefined => {
  const date = new Date(Date.UTC(year, month - 1, day))
  return date.getUTCFullYear() === year && date.getUTCMonth() === month - 1 && date.getUTCDate() === day
    ? date.toISOString().slice(0, 10)
    : undefined
}

/** A day as people write it: ISO 8601, or day and month in the order that is usual where the table comes from. */
export function readDay(written: string, { dayFirst }: Pick<CellFormat, 'dayFirst'>): string | undefined {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/.exec(written)
  if (iso) return isoDay(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const local = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})$/.exec(written)
  if (!local) return undefined
  const [first, second, year] = local.slice(1).map(Number) as [number, number, number]
  // With dots the day comes first everywhere (CLDR, date formats of the languages that write them).
  return dayFirst || written.includes('.') ? isoDay(year, second, first) : isoDay(year, first, second)
}

/** A sign, a currency before or a unit behind, and between them digits with what parts them. */
const CURRENCY = String.raw`(?:\p{Sc}|[A-Z]{3}(?=[\s\d]))?`
const AMOUNT = String.raw`[-+−]?[\d\s'’.,]*\d(?:[eE][-+]\d{1,3})?`
const UNIT = String.raw`(?:\p{Sc}|%|°?\p{L}+[²³]?(?:/\p{L}+)?\.?)?`
const NUMBER = new RegExp(String.raw`^([-+−]?)\s*${CURRENCY}\s*(${AMOUNT})\s*${UNIT}$`, 'u')

/**
 * A number as people write it: with groups of three, a sign, and its unit or currency beside it; or with a power of ten as table programs
 * write very large and small ones, whose sign tells it from what articles are called ("12E4").
 */
export function readNumber(written: string, { decimal, typed }: Pick<CellFormat, 'decimal' | 'typed'>): number | undefined {
  const [, before = '', body = ''] = NUMBER.exec(written.trim()) ?? []
  const bare = body.replace(/[\s'’]/g, '').replace('−', '-')
  const shape =
    decimal === '.' ? /^[-+]?(?:\d+|\d{1,3}(?:,\d{3})+)?(?:\.\d+)?(?:e.*)?$/i : /^[-+]?(?:\d+|\d{1,3}(?:\.\d{3})+)?(?:,\d+)?(?:e.*)?$/i
  if (!/\d/.test(bare)) return undefined
  if (!shape.test(bare)) return typed ? readNumber(written, { decimal: decimal === '.' ? ',' : '.' }) : undefined
  const value = Number(bare.replaceAll(decimal === '.' ? ',' : '.', '').replace(',', '.'))
  return Number.isFinite(value) ? (/[-−]/.test(before) ? -value : value) : undefined
}

/** The sign before the broken part where a language is spoken (CLDR). */
export const decimalSign = (speech: Pick<Speech, 'decimal'>): CellFormat['decimal'] => (speech.decimal(1.5, 1).includes(',') ? ',' : '.')

const YES = new Set(['yes', 'y', 'true', '1', 'x', 'ja', 'oui', 'si', 'sim', 'tak', '✓', '✔', 'on'])
const NO = new Set(['no', 'n', 'false', '0', '-', 'nein', 'non', 'nee', 'nao', 'nie', '✗', '✘', 'off'])

const checked = (
  schema: { safeParse: (value: string) => { success: boolean; error?: { issues: { message: string }[] } } },
  text: string,
): Read => {
  const { success, error } = schema.safeParse(text)
  return success ? { value: text } : { fault: error!.issues[0]!.message }
}

/** What a new entry begins with; what cannot be read in its field is left out. */
export function initialValues(fields: Field[]): Values {
  const values: Values = {}
  for (const field of fields) {
    const read = field.initial && !isFileKind(field.kind) ? readCell(field, field.initial, PLAIN_FORMAT) : {}
    if ('value' in read && read.value !== undefined) values[field.id] = read.value
  }
  return values
}

/** An address as people write it: with the scheme left out. */
const withScheme = (text: string) => (/^[a-z][a-z0-9+.-]*:/i.test(text) ? text : `https://${text}`)

/**
 * What was written in a cell, as the value of a field. Files and pictures are no words: `fileNamed` finds them by the names that are
 * written, and `optionNamed` may make a choice that is not there yet.
 */
export function readCell(
  field: Field,
  written: string,
  format: CellFormat,
  {
    fileNamed,
    optionNamed = name => field.options.find(option => fold(option.name) === fold(name))?.id,
  }: { fileNamed?: (name: string) => string | undefined; optionNamed?: (name: string) => string | undefined } = {},
): Read {
  const text = written.trim()
  if (!text) return {}
  switch (field.kind) {
    case 'text':
    case 'place':
    case 'longText':
      return text.length <= LONGEST[field.kind]
        ? { value: field.kind === 'longText' ? text : text.replace(/\s*\n\s*/g, ' ') }
        : { fault: `It is longer than ${LONGEST[field.kind]} characters.` }
    case 'number':
    case 'money': {
      const value = readNumber(text, format)
      return value === undefined ? { fault: `“${cut(text, 60)}” is no number.` } : { value }
    }
    case 'date': {
      const value = readDay(text, format)
      return value === undefined ? { fault: `“${cut(text, 60)}” is no date. Write it as 2027-01-31.` } : { value }
    }
    case 'yesNo': {
      const word = fold(text)
      return YES.has(word) ? { value: true } : NO.has(word) ? { value: false } : { fault: `“${cut(text, 60)}” is neither yes nor no.` }
    }
    case 'choice':
    case 'choices': {
      const names = field.kind === 'choice' ? [text] : readSeveral(text, CHOICES_APART)
      const ids: string[] = []
      for (const name of names) {
        const id = optionNamed(name)
        if (id === undefined) return { fault: `“${cut(name, 60)}” is none of the choices.` }
        ids.push(id)
      }
      return field.kind === 'choice' ? { value: ids[0]! } : { value: [...new Set(ids)] }
    }
    case 'picture':
    case 'file':
    case 'pictures':
    case 'files': {
      const names = isMany(field.kind) ? readSeveral(text, FILES_APART) : [text]
      const ids: string[] = []
      for (const name of names) {
        const id = fileNamed?.(name)
        if (id === undefined) return { fault: `No file of the library is called “${cut(name, 80)}”.` }
        ids.push(id)
      }
      return isMany(field.kind) ? { value: [...new Set(ids)] } : { value: ids[0]! }
    }
    case 'link':
      return checked(addressSchema, withScheme(text))
    case 'email':
      return checked(emailSchema, text)
    case 'phone':
      return checked(phoneSchema, text)
  }
}

/** Whether a value is one that the field can hold; what is wrong with it otherwise. Whether files are there is not asked. */
export function faultOf(field: Field, value: Value): string | undefined {
  if (isMany(field.kind)) {
    if (!Array.isArray(value)) return 'It can hold several.'
    return field.kind === 'choices' && value.some(id => !optionOf(field, id)) ? 'That is none of the choices.' : undefined
  }
  if (isFileKind(field.kind)) return typeof value === 'string' && /^[a-z0-9]{1,40}$/.test(value) ? undefined : 'That is no file.'
  if (field.kind === 'choice') return typeof value === 'string' && optionOf(field, value) ? undefined : 'That is none of the choices.'
  if (field.kind === 'yesNo') return typeof value === 'boolean' ? undefined : 'It is yes or no.'
  if (field.kind === 'number' || field.kind === 'money')
    return typeof value === 'number' && Number.isFinite(value) ? undefined : 'That is no number.'
  if (typeof value !== 'string' || !value.trim()) return 'There is nothing written in it.'
  const read = readCell(field, value, PLAIN_FORMAT)
  return 'fault' in read ? read.fault : undefined
}

/**
 * A value as it is written in a table: read again by `readCell` it is the same. Files by their names.
 *
 * @param fileName of the file with an identity
 */
export function writeCell(field: Field, value: Value | undefined, fileName: (id: string) => string = id => id): string {
  if (value === undefined) return ''
  if (Array.isArray(value)) {
    const names = value.map(id => (isFileKind(field.kind) ? fileName(id) : (optionOf(field, id)?.name ?? '')))
    return writeSeveral(names.filter(Boolean), isFileKind(field.kind) ? FILES_APART : CHOICES_APART)
  }
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'number') return String(value)
  if (isFileKind(field.kind)) return fileName(value)
  return field.kind === 'choice' ? (optionOf(field, value)?.name ?? '') : value
}

/** What visitors read of a value; files are not said but led to. */
export function sayValue(field: Field, value: Value | undefined, speech: Speech): string {
  if (value === undefined || isFileKind(field.kind)) return ''
  if (Array.isArray(value)) return value.flatMap(id => optionOf(field, id)?.name ?? []).join(', ')
  if (typeof value === 'boolean') return speech.say(value ? 'yes' : 'no')
  if (typeof value === 'number') {
    if (field.kind === 'money') return speech.money(value, field.currency)
    return `${speech.decimal(value, field.decimals)}${field.unit && `\u00A0${field.unit}`}`
  }
  if (field.kind === 'date') return speech.day(value)
  if (field.kind === 'choice') return optionOf(field, value)?.name ?? ''
  return field.kind === 'link' ? value.replace(/^https?:\/\/(?:www\.)?/, '').replace(/\/$/, '') : value
}

/** The name of an entry. */
export const titleOf = (values: Values): string => (typeof values[TITLE] === 'string' ? values[TITLE] : '')

/** The files that values hold. */
export const filesIn = (fields: Field[], values: Values): string[] =>
  fields.filter(({ kind }) => isFileKind(kind)).flatMap(({ id }) => values[id] ?? []) as string[]

/** Which comes first of two values of a field; what is empty comes last. */
export function compareValues(field: Field, speech: Pick<Speech, 'compare'>): (a: Value | undefined, b: Value | undefined) => number {
  const place = new Map(field.options.map(({ id }, at) => [id, at]))
  const rank = (value: Value): number | string => {
    if (typeof value === 'number') return value
    if (typeof value === 'boolean') return value ? 0 : 1
    const first = Array.isArray(value) ? (value[0] ?? '') : value
    return place.get(first) ?? first
  }
  return (a, b) => {
    if (a === undefined || b === undefined) return a === b ? 0 : a === undefined ? 1 : -1
    const [one, other] = [rank(a), rank(b)]
    return typeof one === 'number' && typeof other === 'number' ? one - other : speech.compare(String(one), String(other))
  }
}
