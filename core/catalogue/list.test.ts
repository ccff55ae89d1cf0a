import { describe, expect, it } from 'vitest'
import { speechOf } from '../language/speech'
import type { LiveEntry, Values } from './entry'
import { fieldKey, newField } from './field'
import { listEntries, readListQuestion, sameAs } from './list'
import { newList, type ListAttrs } from './listAttrs'
import { titleOf } from './values'

const FIELDS = [
  newField('title', 'Name'),
  newField('body', 'Body', 'choice', {
    options: [
      { id: 's', name: 'Stoneware' },
      { id: 'p', name: 'Porcelain' },
      { id: 'e', name: 'Earthenware' },
    ],
  }),
  newField('price', 'Price', 'money'),
  newField('begins', 'Begins', 'date'),
  newField('food', 'Food safe', 'yesNo'),
]
const entry = (id: string, values: Values): LiveEntry => ({ id, slug: id, values: { title: id, ...values }, published: '' })
const ENTRIES = [
  entry('Crank', { body: 's', price: 9, food: false }),
  entry('P40', { body: 'p', price: 24, food: true, begins: '2027-03-01' }),
  entry('Buff', { body: 's', price: 11, food: true }),
  entry('Red', { body: 'e', begins: '2027-01-01' }),
]
const speech = speechOf('en')
const list = (attrs: Partial<ListAttrs>, asked = '', but?: string) => {
  const all = { ...newList('listlist01', 'c'), ...attrs }
  const question = readListQuestion(new URLSearchParams(asked && `list=listlist01&${asked}`), all, FIELDS)
  return listEntries(all, ENTRIES, FIELDS, question, speech, but)
}
const names = ({ groups }: ReturnType<typeof list>) => groups.flatMap(({ entries }) => entries.map(({ values }) => titleOf(values)))

describe('names that are written alike in an address', () => {
  const weights = newField('w', 'Weight', 'choice', {
    options: [
      { id: 'under', name: '< 5 kg' },
      { id: 'over', name: '> 5 kg' },
      { id: 'ten', name: '10 kg' },
    ],
  })
  const alike = [newField('title', 'Name'), weights, newField('s1', 'Size (cm)', 'yesNo'), newField('s2', 'Size, cm', 'yesNo')]
  const entries = [entry('Small', { w: 'under', s1: true }), entry('Large', { w: 'over', s2: true }), entry('Box', { w: 'ten' })]
  const attrs = { ...newList('listlist01', 'c'), narrow: ['w', 's1', 's2'] }
  const listed = (asked: [string, string][]) =>
    listEntries(attrs, entries, alike, readListQuestion(new URLSearchParams([['list', 'listlist01'], ...asked]), attrs, alike), speech)

  it('are told apart: each choice leaves its own', () => {
    const { choices } = listed([]).narrowing[0]!
    expect(choices.map(({ name, count }) => [name, count])).toEqual([
      ['< 5 kg', 1],
      ['> 5 kg', 1],
      ['10 kg', 1],
    ])
    const key = fieldKey(weights, alike)
    expect(choices.map(each => names(listed([[key, each.key]])))).toEqual([['Small'], ['Large'], ['Box']])
    // One whose name is its own stays short.
    expect(choices[2]!.key).toBe('10-kg')
  })

  it('as names of fields, too', () => {
    const keys = alike.map(field => fieldKey(field, alike))
    expect(new Set(keys).size).toBe(alike.length)
    expect(names(listed([[keys[3]!, 'yes']]))).toEqual(['Large'])
  })
})

describe('a list', () => {
  it('keeps the catalogue’s own order, or sorts, with what is empty last whichever way', () => {
    expect(names(list({}))).toEqual(['Crank', 'P40', 'Buff', 'Red'])
    expect(names(list({ sort: { field: 'price', down: false } }))).toEqual(['Crank', 'Buff', 'P40', 'Red'])
    expect(names(list({ sort: { field: 'price', down: true } }))).toEqual(['P40', 'Buff', 'Crank', 'Red'])
  })

  it('shows only those that are as it says', () => {
    expect(names(list({ only: [{ field: 'body', is: 'value', value: 's' }] }))).toEqual(['Crank', 'Buff'])
    expect(names(list({ only: [{ field: 'begins', is: 'set' }] }))).toEqual(['P40', 'Red'])
    expect(
      names(
        list({
          only: [
            { field: 'begins', is: 'empty' },
            { field: 'food', is: 'value', value: true },
          ],
        }),
      ),
    ).toEqual(['Buff'])
    // A field that is gone says nothing.
    expect(names(list({ only: [{ field: 'gone', is: 'set' }] }))).toHaveLength(4)
  })

  it('stands under headings in the order of the choices, each entry in its own order below', () => {
    expect(list({ group: 'body' }).groups.map(({ name, entries }) => [name, entries.length])).toEqual([
      ['Stoneware', 2],
      ['Porcelain', 1],
      ['Earthenware', 1],
    ])
  })

  it('goes on by pages, and never beyond the last', () => {
    expect(list({ limit: 3 })).toMatchObject({ page: 1, pages: 2, total: 4 })
    expect(names(list({ limit: 3 }, 'page=2'))).toEqual(['Red'])
    expect(list({ limit: 3 }, 'page=99').page).toBe(2)
    expect(list({ limit: 3 }, 'page=-1').page).toBe(1)
  })

  it('is searched by words in any of its fields, whatever the case and accents', () => {
    expect(names(list({ search: true }, 'q=STONE'))).toEqual(['Crank', 'Buff'])
    expect(names(list({ search: true }, 'q=stone buf'))).toEqual(['Buff'])
    // Only where it has such a field.
    expect(names(list({}, 'q=stone'))).toHaveLength(4)
  })

  it('is narrowed by choice, yes or no, number and day', () => {
    expect(names(list({ narrow: ['body'] }, 'body=porcelain'))).toEqual(['P40'])
    expect(names(list({ narrow: ['food'] }, 'food-safe=yes'))).toEqual(['P40', 'Buff'])
    expect(names(list({ narrow: ['price'] }, 'price-from=10&price-to=20'))).toEqual(['Buff'])
    expect(names(list({ narrow: ['begins'] }, 'begins-from=2027-02-01'))).toEqual(['P40'])
    // Numbers are read as the site's language writes them: one and a half, one thousand and five hundred.
    const dear = { ...newList('listlist01', 'c'), narrow: ['price'] }
    const asked = readListQuestion(new URLSearchParams('list=listlist01&price-from=1.500'), dear, FIELDS)
    for (const [language, found] of [
      ['en', 3],
      ['de', 0],
    ] as const)
      expect(listEntries(dear, ENTRIES, FIELDS, asked, speechOf(language)).total).toBe(found)
    // By what it is not offered to be narrowed by it is not.
    expect(names(list({}, 'body=porcelain'))).toHaveLength(4)
  })

  it('says of each further choice what it would leave', () => {
    const counts = (asked: string) =>
      Object.fromEntries(
        list({ narrow: ['body', 'food'] }, asked).narrowing.map(({ field, choices }) => [
          field.id,
          choices.map(({ key, count }) => `${key} ${count}`),
        ]),
      )
    expect(counts('')).toEqual({ body: ['stoneware 2', 'porcelain 1', 'earthenware 1'], food: ['yes 2', 'no 1'] })
    expect(counts('body=stoneware')).toEqual({ body: ['stoneware 2', 'porcelain 1', 'earthenware 1'], food: ['yes 1', 'no 1'] })
  })

  it('leaves out the entry on whose page it stands, and follows it', () => {
    const like = sameAs([{ field: 'body', is: 'same' }], ENTRIES[0]!)
    expect(names(list({ only: like }, '', 'Crank'))).toEqual(['Buff'])
    // One that has nothing there is alike to those that have nothing.
    expect(sameAs([{ field: 'body', is: 'same' }], entry('x', {}))).toEqual([{ field: 'body', is: 'empty' }])
  })
})
