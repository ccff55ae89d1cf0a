import { describe, expect, it } from 'vitest'
import { PDF_FACTS } from '../testing/pages'
import type { Values } from './entry'
import { newField } from './field'
import { entryData } from './linkedData'

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
const data = (type: Parameters<typeof entryData>[0], values = ALL) =>
  entryData(type, 'Crank', {
    fields: FIELDS,
    values: { title: 'Crank', ...values },
    address: 'https://www.marlpit.example',
    site: 'Marlpit',
    url: 'https://www.marlpit.example/clays/crank',
    file: id =>
      id === 'f1' ? { ...PDF_FACTS, id, handle: 'sheet.pdf' } : id === 'f2' ? { ...PDF_FACTS, id, handle: 'photo.png' } : undefined,
  })

/**
 * What schema.org (version 29) lists as properties of these types, their own and those they inherit, as far as they are used here: written
 * down from its published pages, from memory.
 */
const THING = ['name', 'description', 'url', 'image', 'subjectOf', 'sameAs']
const PROPERTIES: Record<Parameters<typeof entryData>[0], string[]> = {
  Product: [...THING, 'offers', 'additionalProperty'],
  Course: [...THING, 'provider', 'offers'],
  Event: [...THING, 'startDate', 'endDate', 'location', 'offers'],
  Person: [...THING, 'email', 'telephone'],
  Place: [...THING, 'address', 'telephone', 'additionalProperty'],
  DigitalDocument: [...THING, 'datePublished'],
}

describe('what an entry is, for programs', () => {
  it.each(Object.entries(PROPERTIES))('%s says nothing that the type does not have', (type, properties) => {
    const { '@type': said, ...rest } = data(type as 'Product')
    expect(said).toBe(type)
    expect(Object.keys(rest).filter(name => !properties.includes(name))).toEqual([])
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

  it('says nothing of what an entry does not have, or visitors may not know of', () => {
    expect(data('Product', { sheet: 'hidden' })).toEqual({
      '@type': 'Product',
      'name': 'Crank',
      'url': 'https://www.marlpit.example/clays/crank',
    })
  })
})
