import { fold } from '../find/fold'
import type { Speech } from '../language/speech'
import { fieldOf } from './catalogue'
import type { LiveEntry, Value } from './entry'
import { TITLE, fieldKey, isChoice, isFileKind, isNumeric, optionKeys, type Field } from './field'
import type { Condition, ListAttrs } from './listAttrs'
import { compareValues, decimalSign, readDay, readNumber, sayValue, titleOf } from './values'

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
    const key = fieldKey(field, fields)
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
    sort: sortable(attrs, fields).find(field => fieldKey(field, fields) === asked)?.id,
    page: Number.isSafeInteger(page) && page > 1 ? page : 1,
  }
}

/** The fields of a form that ask the same, but its page: names and values, in their order. */
export function askedFields(
  { q, chosen, between, sort }: ListQuestion,
  { placement }: Pick<ListAttrs, 'placement'>,
  fields: Field[],
): [name: string, value: string][] {
  const keyed = (id: string) => fieldKey(fieldOf(fields, id)!, fields)
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

/** Whether an entry is as a condition says. */
export function meets({ field: id, is, value }: Condition, { values }: Pick<LiveEntry, 'values'>): boolean {
  const has = values[id]
  if (is === 'set') return has !== undefined
  if (is === 'empty') return has === undefined
  return is === 'value' ? holds(has, value) : true
}

const NO_KEYS: string[] = []
/** What stands for values of a field in an address. It is asked for each of thousands of entries: what is the same is made once. */
const keysIn = (named: Map<string, string>) => {
  const keys = new Map<Value, string[]>([
    [true, ['yes']],
    [false, ['no']],
    ...[...named].map(([id, key]): [Value, string[]] => [id, [key]]),
  ])
  return (value: Value | undefined): string[] =>
    Array.isArray(value) ? value.flatMap(id => keys.get(id) ?? NO_KEYS) : (value !== undefined && keys.get(value)) || NO_KEYS
}

const isBetween = ({ kind }: Field, { from, to }: { from: string; to: string }, speech: Speech) => {
  const decimal = decimalSign(speech)
  const read = (text: string): number | string | undefined =>
    kind === 'date' ? readDay(text, { dayFirst: true }) : readNumber(text, { decimal, typed: true })
  const [least, most] = [read(from), read(to)]
  return (value: Value | undefined): boolean => {
    if (value === undefined) return least === undefined && most === undefined
    return (least === undefined || (value as typeof least) >= least) && (most === undefined || (value as typeof most) <= most)
  }
}

/** A field that is narrowed by: what its values are called in an address, and whether one is as was asked. */
function narrower(field: Field, { chosen, between }: ListQuestion, speech: Speech) {
  const named = optionKeys(field.options)
  const keysOf = keysIn(named)
  const [range, key] = [between.get(field.id), chosen.get(field.id)]
  const passes = range ? isBetween(field, range, speech) : (value: Value | undefined) => key === undefined || keysOf(value).includes(key)
  return { field, named, keysOf, passes, counts: new Map<string, number>() }
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

const order = (field: Field, down: boolean, speech: Speech) => {
  const compare = compareValues(field, speech)
  return (a: LiveEntry, b: LiveEntry) => {
    const [one, other] = [a.values[field.id], b.values[field.id]]
    // What is empty comes last, whichever way it goes.
    const turned = down && one !== undefined && other !== undefined
    return (turned ? -1 : 1) * compare(one, other) || speech.compare(titleOf(a.values), titleOf(b.values))
  }
}

const orders = new WeakMap<LiveEntry[], { fields: Field[]; ways: Map<string, LiveEntry[]> }>()
/** All entries in the order a list shows them; kept for as long as they are: comparing words by the rules of a language is dear. */
function inOrder(
  entries: LiveEntry[],
  attrs: Pick<ListAttrs, 'sort' | 'group'>,
  fields: Field[],
  asked: string | undefined,
  speech: Speech,
): LiveEntry[] {
  const by = asked ? { field: asked, down: false } : attrs.sort
  const [sort, group] = [by?.field, attrs.group].map(id => (id ? fieldOf(fields, id) : undefined))
  if (!sort && !group) return entries
  const held = orders.get(entries)
  const { ways } = held?.fields === fields ? held : { ways: new Map<string, LiveEntry[]>() }
  orders.set(entries, { fields, ways })
  const way = [speech.language, sort?.id, by?.down, group?.id].join()
  const known = ways.get(way)
  if (known) return known
  const sorted = [...entries]
  if (sort) sorted.sort(order(sort, by!.down, speech))
  if (group) {
    const inGroups = compareValues(group, speech)
    sorted.sort((a, b) => inGroups(a.values[group.id], b.values[group.id]))
  }
  ways.set(way, sorted)
  return sorted
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
  // A condition of a field that is gone says nothing.
  const only = attrs.only.filter(({ field }) => fieldOf(fields, field))
  const standing = inOrder(entries, attrs, fields, question.sort, speech).filter(
    entry => entry.id !== but && only.every(condition => meets(condition, entry)),
  )
  const worded = words.length ? standing.filter(entry => words.every(word => haystackOf(entry, fields, speech).includes(word))) : standing
  const by = narrowing(attrs, fields).map(field => narrower(field, question, speech))
  const found: LiveEntry[] = []
  // Each choice is counted with all others that hold but its own kind's, so that another can be taken instead.
  for (const entry of worded) {
    let failed: (typeof by)[number] | undefined
    let failures = 0
    for (const narrowed of by) {
      if (narrowed.passes(entry.values[narrowed.field.id])) continue
      failed = narrowed
      failures++
    }
    if (!failures) found.push(entry)
    if (failures > 1) continue
    for (const narrowed of by) {
      if (failed && narrowed !== failed) continue
      for (const key of narrowed.keysOf(entry.values[narrowed.field.id])) narrowed.counts.set(key, (narrowed.counts.get(key) ?? 0) + 1)
    }
  }
  const group = attrs.group ? fieldOf(fields, attrs.group) : undefined
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
    narrowing: by.map(({ field, named, counts }) => {
      const offered: { key: string; name: string }[] =
        field.kind === 'yesNo'
          ? ['yes', 'no'].map(key => ({ key, name: speech.say(key as 'yes') }))
          : field.options.map(({ id, name }) => ({ key: named.get(id)!, name }))
      const taken = question.chosen.get(field.id)
      return {
        field,
        choices: offered
          .map(each => ({ ...each, count: counts.get(each.key) ?? 0, taken: each.key === taken }))
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
