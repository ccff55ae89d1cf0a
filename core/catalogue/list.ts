import { fold } from '../find/fold'
import type { Speech } from '../language/speech'
import { fieldOf, optionOf } from './catalogue'
import type { LiveEntry, Value } from './entry'
import { TITLE, fieldKey, isChoice, isFileKind, isNumeric, optionKey, type Field } from './field'
import type { Condition, ListAttrs } from './listAttrs'
import { compareValues, readDay, readNumber, sayValue, titleOf } from './values'

/** What a visitor asks of a list; all of it stands in the address. */
export interface ListQuestion {
  /** words that entries hold */
  q: string
  /** fields with the choices that were taken, as the address names them */
  chosen: Map<string, string>
  /** fields with the least and the most that is wanted */
  between: Map<string, { from: string; to: string }>
  /** identity of the field they are sorted by; undefined as the list itself says */
  sort: string | undefined
  /** counted from 1 */
  page: number
}
const NOTHING_ASKED: ListQuestion = { q: '', chosen: new Map(), between: new Map(), sort: undefined, page: 1 }

const LONGEST_WORDS = 200

/** Fields with which visitors say how much or when. */
export const isRanged = ({ kind }: Pick<Field, 'kind'>): boolean => isNumeric(kind) || kind === 'date'
/** Fields by which a list can be narrowed down. */
export const narrows = ({ kind }: Pick<Field, 'kind'>): boolean => isChoice(kind) || kind === 'yesNo' || isNumeric(kind) || kind === 'date'

const narrowing = ({ narrow }: Pick<ListAttrs, 'narrow'>, fields: Field[]): Field[] =>
  narrow.flatMap(id => fieldOf(fields, id) ?? []).filter(narrows)

/** Fields by which visitors may sort: what they narrow by with numbers or days, and the name. */
export const sortable = (attrs: Pick<ListAttrs, 'narrow'>, fields: Field[]): Field[] => [
  ...fields.filter(({ id }) => id === TITLE),
  ...narrowing(attrs, fields).filter(isRanged),
]

/** Reads what is asked of a list from an address; what is asked of another list of the page is not asked of this one. */
export function readListQuestion(params: URLSearchParams, attrs: ListAttrs, fields: Field[]): ListQuestion {
  if (params.get('list') !== attrs.placement) return NOTHING_ASKED
  const chosen = new Map<string, string>()
  const between = new Map<string, { from: string; to: string }>()
  for (const field of narrowing(attrs, fields)) {
    const key = fieldKey(field)
    if (isRanged(field)) {
      const [from, to] = [params.get(`${key}-from`) ?? '', params.get(`${key}-to`) ?? '']
      if (from || to) between.set(field.id, { from: from.slice(0, 40), to: to.slice(0, 40) })
    } else {
      const value = params.get(key)
      if (value) chosen.set(field.id, value.slice(0, 120))
    }
  }
  const asked = params.get('sort')
  const page = Number(params.get('page'))
  return {
    q: attrs.search ? (params.get('q') ?? '').trim().slice(0, LONGEST_WORDS) : '',
    chosen,
    between,
    sort: sortable(attrs, fields).find(field => fieldKey(field) === asked)?.id,
    page: Number.isSafeInteger(page) && page > 1 ? page : 1,
  }
}

/** The fields of a form that ask the same, but its page: names and values, in their order. */
export function askedFields(
  { q, chosen, between, sort }: ListQuestion,
  { placement }: Pick<ListAttrs, 'placement'>,
  fields: Field[],
): [name: string, value: string][] {
  const keyed = (id: string) => fieldKey(fieldOf(fields, id)!)
  return [
    ['list', placement],
    ...(q ? [['q', q] as [string, string]] : []),
    ...[...chosen].map(([id, value]): [string, string] => [keyed(id), value]),
    ...[...between].flatMap(([id, { from, to }]): [string, string][] => [
      ...(from ? [[`${keyed(id)}-from`, from] as [string, string]] : []),
      ...(to ? [[`${keyed(id)}-to`, to] as [string, string]] : []),
    ]),
    ...(sort ? [['sort', keyed(sort)] as [string, string]] : []),
  ]
}

const holds = (value: Value | undefined, wanted: Value | undefined): boolean =>
  Array.isArray(value) ? value.includes(wanted as string) : value === wanted

/** Whether an entry is as a condition says; a condition of a field that is gone says nothing. */
function meets({ field: id, is, value }: Condition, { values }: Pick<LiveEntry, 'values'>, fields: Field[]): boolean {
  if (!fieldOf(fields, id)) return true
  const has = values[id]
  if (is === 'set') return has !== undefined
  if (is === 'empty') return has === undefined
  return is === 'value' ? holds(has, value) : true
}

/** What stands for a value of a field in an address. */
const keysOf = (field: Field, value: Value | undefined): string[] => {
  if (value === undefined) return []
  if (typeof value === 'boolean') return [value ? 'yes' : 'no']
  return (Array.isArray(value) ? value : [String(value)]).flatMap(id => {
    const option = optionOf(field, id)
    return option ? [optionKey(option)] : []
  })
}

function isBetween(field: Field, value: Value | undefined, { from, to }: { from: string; to: string }): boolean {
  const read = (text: string): number | string | undefined =>
    field.kind === 'date' ? readDay(text, { dayFirst: true }) : (readNumber(text, { decimal: '.' }) ?? readNumber(text, { decimal: ',' }))
  const [least, most] = [read(from), read(to)]
  if (value === undefined) return least === undefined && most === undefined
  return (least === undefined || (value as typeof least) >= least) && (most === undefined || (value as typeof most) <= most)
}

const haystacks = new WeakMap<LiveEntry, { fields: Field[]; language: string; text: string }>()
/** All words of an entry, folded; kept for as long as the entry is. */
function haystackOf(entry: LiveEntry, fields: Field[], speech: Speech): string {
  const known = haystacks.get(entry)
  if (known?.fields === fields && known.language === speech.language) return known.text
  const text = fold(
    fields
      .filter(({ kind }) => !isFileKind(kind))
      .map(field => sayValue(field, entry.values[field.id], speech))
      .join('\n'),
  )
  haystacks.set(entry, { fields, language: speech.language, text })
  return text
}

export interface ListChoice {
  key: string
  name: string
  /** entries that are left when it is taken */
  count: number
  taken: boolean
}

/** One page of a list, and what it can be narrowed by. */
export interface Listed {
  /** under headings where it is grouped; otherwise one without */
  groups: { name: string; entries: LiveEntry[] }[]
  total: number
  page: number
  pages: number
  question: ListQuestion
  /** each field visitors narrow by: choices with what each would leave, or from and to */
  narrowing: { field: Field; choices: ListChoice[] }[]
}

const order = (attrs: ListAttrs, fields: Field[], { sort }: ListQuestion, speech: Speech) => {
  const by = sort ? { field: sort, down: false } : attrs.sort
  const field = by && fieldOf(fields, by.field)
  if (!field) return undefined
  const compare = compareValues(field, speech)
  return (a: LiveEntry, b: LiveEntry) => {
    const [one, other] = [a.values[field.id], b.values[field.id]]
    // What is empty comes last, whichever way it goes.
    const turned = by.down && one !== undefined && other !== undefined
    return (turned ? -1 : 1) * compare(one, other) || speech.compare(titleOf(a.values), titleOf(b.values))
  }
}

/**
 * One page of what a list shows.
 *
 * @param entries of its catalogue that visitors see, in their own order
 * @param but identity of an entry that is left out: the one on whose page the list stands
 */
export function listEntries(
  attrs: ListAttrs,
  entries: LiveEntry[],
  fields: Field[],
  question: ListQuestion,
  speech: Speech,
  but?: string,
): Listed {
  const words = fold(question.q).split(/\s+/).filter(Boolean)
  const standing = entries.filter(entry => entry.id !== but && attrs.only.every(condition => meets(condition, entry, fields)))
  const by = narrowing(attrs, fields)
  const worded = words.length ? standing.filter(entry => words.every(word => haystackOf(entry, fields, speech).includes(word))) : standing
  const passes = (field: Field, { values }: LiveEntry): boolean => {
    const value = values[field.id]
    const range = question.between.get(field.id)
    if (range) return isBetween(field, value, range)
    const key = question.chosen.get(field.id)
    return key === undefined || keysOf(field, value).includes(key)
  }
  const found: LiveEntry[] = []
  // Each choice is counted with all others that hold but its own kind's, so that another can be taken instead.
  const counts = by.map(() => new Map<string, number>())
  for (const entry of worded) {
    const failed = by.filter(field => !passes(field, entry))
    if (!failed.length) found.push(entry)
    if (failed.length > 1) continue
    by.forEach((field, at) => {
      if (failed.length && failed[0] !== field) return
      for (const key of keysOf(field, entry.values[field.id])) counts[at]!.set(key, (counts[at]!.get(key) ?? 0) + 1)
    })
  }
  const compare = order(attrs, fields, question, speech)
  if (compare) found.sort(compare)
  const group = attrs.group ? fieldOf(fields, attrs.group) : undefined
  if (group) {
    const inGroups = compareValues(group, speech)
    found.sort((a, b) => inGroups(a.values[group.id], b.values[group.id]))
  }
  const pages = Math.max(1, Math.ceil(found.length / attrs.limit))
  const page = Math.min(question.page, pages)
  const shown = found.slice((page - 1) * attrs.limit, page * attrs.limit)
  const groups = new Map<string, LiveEntry[]>()
  for (const entry of shown) {
    const name = group ? sayValue(group, entry.values[group.id], speech) : ''
    groups.set(name, [...(groups.get(name) ?? []), entry])
  }
  return {
    groups: [...groups].map(([name, those]) => ({ name, entries: those })),
    total: found.length,
    page,
    pages,
    question,
    narrowing: by.map((field, at) => {
      const named: { key: string; name: string }[] =
        field.kind === 'yesNo'
          ? ['yes', 'no'].map(key => ({ key, name: speech.say(key as 'yes') }))
          : field.options.map(option => ({ key: optionKey(option), name: option.name }))
      const taken = question.chosen.get(field.id)
      return {
        field,
        choices: named
          .map(each => ({ ...each, count: counts[at]!.get(each.key) ?? 0, taken: each.key === taken }))
          .filter(({ count, taken: stays }) => count > 0 || stays),
      }
    }),
  }
}

/** Values that entries of a list have in common with the entry on whose page it stands: `same` becomes that very value. */
export const sameAs = (only: Condition[], { values }: Pick<LiveEntry, 'values'>): Condition[] =>
  only.map(condition => {
    if (condition.is !== 'same') return condition
    const value = values[condition.field]
    const first = Array.isArray(value) ? value[0] : value
    return typeof first === 'string' || typeof first === 'boolean'
      ? { ...condition, is: 'value', value: first }
      : { ...condition, is: 'empty' }
  })
