import { fieldOf, optionOf, type Catalogue } from './catalogue'
import { cut } from '../cut'
import type { Value } from './entry'
import { TITLE, type Field, type FieldKind } from './field'
import { plainText } from './longText'

type Type = NonNullable<Catalogue['type']>
type Said = Record<string, unknown>

/** A property that a field can be told as, and how it is written (schema.org). */
interface Property {
  /** kinds of fields that it can be */
  kinds: readonly FieldKind[]
  write: (value: Value, field: Field) => unknown
}

/** Letters that are said of a thing to programs. */
const LONGEST = 500
/** A text that describes a thing, as programs are told it. */
export const described = ({ kind }: Pick<Field, 'kind'>, text: string): string => cut(kind === 'longText' ? plainText(text) : text, LONGEST)

const WORDS: readonly FieldKind[] = ['text', 'choice', 'choices', 'place', 'number']
const worded = (value: Value, field: Field): string =>
  [value]
    .flat()
    .map(each => (typeof each === 'string' ? (optionOf(field, each)?.name ?? each) : String(each)))
    .join(', ')
const plain = (...kinds: FieldKind[]): Property => ({ kinds, write: value => value })
const text: Property = { kinds: WORDS, write: worded }
const long: Property = { kinds: ['text', 'longText'], write: (value, field) => described(field, String(value)) }
const date = plain('date')
const named = (type: string): Property => ({ kinds: WORDS, write: (value, field) => ({ '@type': type, 'name': worded(value, field) }) })
const measured: Property = {
  kinds: ['number'],
  write: (value, { unit }) => ({ '@type': 'QuantitativeValue', value, ...(unit && { unitText: unit }) }),
}
const priced: Property = {
  kinds: ['money'],
  write: (value, { currency }) => ({ '@type': 'Offer', 'price': value, 'priceCurrency': currency }),
}

/** What fields of an entry can be told as, by the type of schema.org that its catalogue is of. */
export const PROPERTIES: Record<Type, Record<string, Property>> = {
  Product: {
    description: long,
    offers: priced,
    sku: text,
    gtin: text,
    mpn: text,
    brand: named('Brand'),
    manufacturer: named('Organization'),
    category: text,
    color: text,
    material: text,
    size: text,
    weight: measured,
    width: measured,
    height: measured,
    depth: measured,
    releaseDate: date,
  },
  Course: {
    description: long,
    offers: priced,
    courseCode: text,
    educationalLevel: text,
    coursePrerequisites: text,
    inLanguage: text,
    about: named('Thing'),
    author: named('Person'),
  },
  Event: {
    description: long,
    offers: priced,
    startDate: date,
    endDate: date,
    location: named('Place'),
    organizer: named('Organization'),
    performer: named('Person'),
    maximumAttendeeCapacity: plain('number'),
    inLanguage: text,
  },
  Person: {
    description: long,
    jobTitle: text,
    worksFor: named('Organization'),
    email: plain('email'),
    telephone: plain('phone'),
    sameAs: plain('link'),
    knowsLanguage: text,
  },
  Place: {
    description: long,
    address: text,
    telephone: plain('phone'),
    maximumAttendeeCapacity: plain('number'),
    publicAccess: plain('yesNo'),
    sameAs: plain('link'),
  },
  DigitalDocument: {
    description: long,
    datePublished: date,
    dateModified: date,
    author: named('Person'),
    publisher: named('Organization'),
    inLanguage: text,
    version: text,
    about: named('Thing'),
  },
}

/** Whether a field can be told as a property of a type. */
export const canBeTold = (type: Type, property: string, { id, kind }: Pick<Field, 'id' | 'kind'>): boolean =>
  id !== TITLE && !!PROPERTIES[type][property]?.kinds.includes(kind)

/** What is said of an entry by the fields its owner chose for properties; one that is empty says nothing. */
export function saidByProperties(type: Type, properties: Catalogue['properties'], fields: Field[], values: Record<string, Value>): Said {
  return Object.fromEntries(
    Object.entries(properties).flatMap(([property, id]) => {
      const [field, value] = [fieldOf(fields, id), values[id]]
      if (!field || value === undefined || !canBeTold(type, property, field)) return []
      return [[property, PROPERTIES[type][property]!.write(value, field)]]
    }),
  )
}
