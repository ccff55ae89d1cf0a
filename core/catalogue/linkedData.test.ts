import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { expand } from 'jsonld'
import { describe, expect, it } from 'vitest'
import { PDF_FACTS } from '../testing/pages'
import type { Values } from './entry'
import { newField } from './field'
import { entryData } from './linkedData'
import { PROPERTIES, canBeTold, described } from './properties'

const TYPES = ['Product', 'Course', 'Event', 'Person', 'Place', 'DigitalDocument'] as const
const FIELDS = [
  newField('title', 'Name'),
  newField('about', 'About', 'longText'),
  newField('price', 'Price', 'money', { currency: 'GBP' }),
  newField('weight', 'Weight', 'number', { unit: 'kg' }),
  newField('begins', 'Begins', 'date'),
  newField('ends', 'Ends', 'date'),
  newField('where', 'Where', 'place'),
  newField('mail', 'Mail', 'email'),
  newField('phone', 'Phone', 'phone'),
  newField('web', 'Web', 'link'),
  newField('sheet', 'Sheet', 'file'),
  newField('photo', 'Photo', 'picture'),
]
const ALL: Values = {
  about: 'Fires **white**.',
  price: 12.5,
  weight: 10,
  begins: '2027-01-11',
  ends: '2027-03-15',
  where: 'Marlpit Lane',
  mail: 'yard@marlpit.example',
  phone: '01632 960146',
  web: 'https://www.marlpit.example/x',
  sheet: 'f1',
  photo: 'f2',
}
/** Every property of a type that some field can be, by the first that can. */
const chosen = (type: (typeof TYPES)[number]) =>
  Object.fromEntries(
    Object.keys(PROPERTIES[type]).flatMap(property => {
      const field = FIELDS.find(each => canBeTold(type, property, each))
      return field ? [[property, field.id]] : []
    }),
  )
const data = (type: (typeof TYPES)[number], values = ALL, properties: Record<string, string> = {}) =>
  entryData(type, 'Crank', {
    fields: FIELDS,
    properties,
    values: { title: 'Crank', ...values },
    address: 'https://www.marlpit.example',
    site: 'Marlpit',
    url: 'https://www.marlpit.example/clays/crank',
    file: id =>
      id === 'f1' ? { ...PDF_FACTS, id, handle: 'sheet.pdf' } : id === 'f2' ? { ...PDF_FACTS, id, handle: 'photo.png' } : undefined,
  })

// The published definitions of schema.org as types, one interface for each of its types with the properties it has and those it extends.
const DEFINITIONS = readFileSync(
  createRequire(import.meta.url)
    .resolve('schema-dts')
    .replace(/schema\.js$/, 'schema.d.ts'),
  'utf8',
)
const interfaces = new Map(
  [...DEFINITIONS.matchAll(/^interface (\w+)Base extends ([^{]+) \{\n(.*?)^\}/gms)].map(([, name, parents, body]) => [
    name!,
    {
      parents: parents!.split(/,\s*/).flatMap(parent => /^(\w+)Base$/.exec(parent)?.[1] ?? []),
      own: [...body!.matchAll(/^ {4}"(\w+)"\?:/gm)].map(([, property]) => property!),
    },
  ]),
)
function propertiesOf(type: string): Set<string> {
  const { parents, own } = interfaces.get(type)!
  return new Set([...own, ...parents.flatMap(parent => [...propertiesOf(parent)])])
}

/** Every thing that is said, with those within it. */
const nodesIn = (said: unknown): Record<string, unknown>[] =>
  Array.isArray(said)
    ? said.flatMap(nodesIn)
    : typeof said === 'object' && said !== null
      ? [said as Record<string, unknown>, ...Object.values(said).flatMap(nodesIn)]
      : []

const told = TYPES.flatMap(type => [
  { type, how: 'by the kinds of its fields', said: data(type) },
  { type, how: 'with each property chosen', said: data(type, ALL, chosen(type)) },
])

describe('what an entry is, for programs', () => {
  it.each(told)('$type $how, and what it is made of, say nothing that schema.org has not', ({ type, said: all }) => {
    const nodes = nodesIn(all)
    expect(nodes[0]!['@type']).toBe(type)
    for (const { '@type': said, ...rest } of nodes) {
      const known = propertiesOf(said as string)
      expect(
        Object.keys(rest).filter(name => !known.has(name)),
        said as string,
      ).toEqual([])
    }
  })

  // JSON-LD 1.1, 5: what a processor does not know it drops; what it expands is all that was said.
  it.each(told)('$type $how is read by a JSON-LD processor, all of it', async ({ type, said }) => {
    const [node] = await expand(
      { '@context': { '@vocab': 'https://schema.org/' }, ...said },
      { documentLoader: () => Promise.reject(new Error('Nothing is fetched.')) },
    )
    expect(Object.keys(node!).sort()).toEqual(
      Object.keys(said)
        .map(name => (name === '@type' ? name : `https://schema.org/${name}`))
        .sort(),
    )
    expect(node!['@type']).toEqual([`https://schema.org/${type}`])
    expect(node!['https://schema.org/name']).toEqual([{ '@value': 'Crank' }])
  })

  it('has price, days, place and papers where they belong', () => {
    expect(data('Product')).toMatchObject({
      offers: { '@type': 'Offer', 'price': 12.5, 'priceCurrency': 'GBP' },
      additionalProperty: [{ '@type': 'PropertyValue', 'name': 'Weight', 'value': 10, 'unitText': 'kg' }],
      image: ['https://www.marlpit.example/files/photo.png'],
      subjectOf: [{ '@type': 'DigitalDocument', 'url': 'https://www.marlpit.example/files/sheet.pdf' }],
      description: 'Fires white.',
    })
    expect(data('Event')).toMatchObject({ startDate: '2027-01-11', endDate: '2027-03-15', location: { '@type': 'Place' } })
    expect(data('Person')).toMatchObject({ email: 'yard@marlpit.example', telephone: '01632 960146' })
  })

  it('describes it in words, without the signs that lay a long text out, and leaves short ones as they are', () => {
    expect(described({ kind: 'longText' }, '**Fires** white at [1280 °C](https://marlpit.example/firing).\n\n- throws\n- casts')).toBe(
      'Fires white at 1280 °C. throws casts',
    )
    expect(described({ kind: 'text' }, 'SDS_101 * revised')).toBe('SDS_101 * revised')
    expect(described({ kind: 'text' }, `${'x'.repeat(499)}🏺`)).toBe('x'.repeat(499))
  })

  it('says a field as the property that was chosen for it, and not once more by its kind', () => {
    expect(data('Product', ALL, { weight: 'weight', releaseDate: 'ends' })).toMatchObject({
      weight: { '@type': 'QuantitativeValue', 'value': 10, 'unitText': 'kg' },
      releaseDate: '2027-03-15',
    })
    expect(data('Product', ALL, { weight: 'weight' })).not.toHaveProperty('additionalProperty')
    expect(data('Event', ALL, { startDate: 'ends' })).toMatchObject({ startDate: '2027-03-15' })
    // A number is no day, and what is empty says nothing.
    expect(data('Event', ALL, { startDate: 'weight' })).toMatchObject({ startDate: '2027-01-11' })
    expect(data('Product', {}, { sku: 'where' })).not.toHaveProperty('sku')
  })

  it('says nothing of what an entry does not have, or visitors may not know of', () => {
    expect(data('Product', { sheet: 'hidden' })).toEqual({
      '@type': 'Product',
      'name': 'Crank',
      'url': 'https://www.marlpit.example/clays/crank',
    })
  })
})
