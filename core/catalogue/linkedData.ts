import { filePath } from '../page/href'
import type { TargetFacts } from '../page/placeholders'
import type { Catalogue } from './catalogue'
import type { LiveEntry, Value } from './entry'
import { TITLE, isChoice, isFileKind, isNumeric, type Field, type FieldKind } from './field'
import { optionOf } from './catalogue'
import { described, saidByProperties } from './properties'

type Type = NonNullable<Catalogue['type']>
type Said = Record<string, unknown>

interface EntryFacts {
  fields: Field[]
  values: LiveEntry['values']
  /** fields that were chosen for properties, by those */
  properties: Catalogue['properties']
  /** scheme and host of the public site */
  address: string
  /** name of the site */
  site: string
  /** address of the entry's own page */
  url: string
  /** a file that visitors may know of, and that is not behind a gate */
  file: (id: string) => TargetFacts | undefined
}

const firstOf = ({ fields, values }: EntryFacts, ...kinds: FieldKind[]): { field: Field; value: Value } | undefined => {
  for (const kind of kinds) {
    const field = fields.find(each => each.id !== TITLE && each.kind === kind && values[each.id] !== undefined)
    if (field) return { field, value: values[field.id]! }
  }
  return undefined
}

const text = (facts: EntryFacts, ...kinds: FieldKind[]): string | undefined => {
  const found = firstOf(facts, ...kinds)
  return typeof found?.value === 'string' ? found.value : undefined
}

/** Properties in which a thing has what it costs. */
const offers = (facts: EntryFacts): Said => {
  const price = firstOf(facts, 'money')
  return price ? { offers: { '@type': 'Offer', 'price': price.value, 'priceCurrency': price.field.currency, 'url': facts.url } } : {}
}

const datesOf = ({ fields, values }: EntryFacts): string[] =>
  fields.flatMap(({ id, kind }) => (kind === 'date' && typeof values[id] === 'string' ? [values[id]] : []))

const placeOf = (facts: EntryFacts): Said => {
  const place = text(facts, 'place')
  return place ? { location: { '@type': 'Place', 'name': place, 'address': place } } : {}
}

/** Facts that have no property of their own, each with its unit (schema.org, additionalProperty). */
const further = ({ fields, values, properties: chosen }: EntryFacts): Said => {
  const told = new Set(Object.values(chosen))
  const properties = fields.flatMap(field => {
    const value = values[field.id]
    if (
      value === undefined ||
      told.has(field.id) ||
      !(isChoice(field.kind) || isNumeric(field.kind) || field.kind === 'yesNo') ||
      field.kind === 'money'
    )
      return []
    const said = Array.isArray(value)
      ? value.flatMap(id => optionOf(field, id)?.name ?? []).join(', ')
      : field.kind === 'choice'
        ? (optionOf(field, String(value))?.name ?? '')
        : value
    return said === '' ? [] : [{ '@type': 'PropertyValue', 'name': field.name, 'value': said, ...(field.unit && { unitText: field.unit }) }]
  })
  return properties.length ? { additionalProperty: properties } : {}
}

/** What each type says besides what all of them do. */
const OWN: Record<Type, (facts: EntryFacts) => Said> = {
  Product: facts => ({ ...offers(facts), ...further(facts) }),
  Course: facts => ({ provider: { '@type': 'Organization', 'name': facts.site, 'url': `${facts.address}/` }, ...offers(facts) }),
  Event: facts => {
    const [startDate, endDate] = datesOf(facts)
    return { ...(startDate && { startDate }), ...(endDate && { endDate }), ...placeOf(facts), ...offers(facts) }
  },
  Person: facts => ({
    ...(text(facts, 'email') && { email: text(facts, 'email') }),
    ...(text(facts, 'phone') && { telephone: text(facts, 'phone') }),
    ...(text(facts, 'link') && { sameAs: text(facts, 'link') }),
  }),
  Place: facts => ({
    ...(text(facts, 'place') && { address: text(facts, 'place') }),
    ...(text(facts, 'phone') && { telephone: text(facts, 'phone') }),
    ...further(facts),
  }),
  DigitalDocument: facts => {
    const [dated] = datesOf(facts)
    return dated ? { datePublished: dated } : {}
  },
}

/**
 * What an entry is, for programs: a thing of a type of schema.org, with the properties that were chosen for its fields, and otherwise
 * those that they are by their kinds.
 */
export function entryData(type: Type, name: string, facts: EntryFacts): Said {
  const about = firstOf(facts, 'longText', 'text')
  const files = facts.fields
    .filter(({ kind }) => isFileKind(kind))
    .flatMap(field =>
      ([facts.values[field.id] ?? []].flat() as string[]).flatMap(id => facts.file(id) ?? []).map(file => ({ field, file })),
    )
  const pictures = files.filter(({ field: { kind }, file }) => (kind === 'picture' || kind === 'pictures') && file.picture)
  const papers = files.filter(({ field: { kind } }) => kind === 'file' || kind === 'files')
  return {
    '@type': type,
    name,
    'url': facts.url,
    ...(about && { description: described(about.field, String(about.value)) }),
    ...(pictures.length && { image: pictures.map(({ file }) => facts.address + filePath(file.handle)) }),
    ...(papers.length && {
      subjectOf: papers.map(({ file }) => ({
        '@type': 'DigitalDocument',
        'name': file.title,
        'url': facts.address + filePath(file.handle),
        'encodingFormat': file.mediaType,
      })),
    }),
    ...OWN[type](facts),
    ...saidByProperties(type, facts.properties, facts.fields, facts.values),
  }
}
