import { expect, it } from 'vitest'
import fc from 'fast-check'
import { FAMILIES } from '../files/mediaType'
import { SEARCH_SORTS, readSearchQuery, searchHref, type SearchQuery } from './searchQuery'

const read = (query: string) => readSearchQuery(new URLSearchParams(query))

it('stands in an address whole, and is read again', () => {
  const some = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined })
  const query: fc.Arbitrary<SearchQuery> = fc.record({
    q: fc.constantFrom('', 'kiln', 'kiln & glaze', '釉薬', '+1 %'),
    within: fc.array(fc.constantFrom('a1', 'b2'), { maxLength: 3 }),
    in: some(fc.constant('shelf12345')),
    at: some(fc.constant('place12345')),
    folder: some(fc.constantFrom('f1', 'f 2')),
    kind: some(fc.constantFrom(...FAMILIES)),
    tag: some(fc.constantFrom('K60', 'a&b=c')),
    from: some(fc.constant('2026-01-31')),
    to: some(fc.constant('2026-12-01')),
    sort: fc.constantFrom(...SEARCH_SORTS),
    page: fc.integer({ min: 1, max: 999_999_999 }),
  })
  fc.assert(
    fc.property(query, asked => {
      expect(read(searchHref(asked).split('?')[1] ?? '')).toEqual(asked)
    }),
  )
})

it('takes anything typed there for what it can be', () => {
  expect(read(`q=${'x'.repeat(10_000)}&page=1e9&sort=;drop&kind=<b>&from=2026-13-99&to=x&in=../x&at=%00&folder=%00`)).toEqual({
    ...read(''),
    q: 'x'.repeat(200),
  })
  expect(read('q=%00a%1Fb').q).toBe('a b')
  expect(read(Array.from({ length: 1000 }, (_, index) => `within=${index}`).join('&')).within).toHaveLength(50)
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), text => {
      const { q } = readSearchQuery(new URLSearchParams([['q', text]]))
      expect(q.isWellFormed() && q.length <= 200 && !q.includes('\0')).toBe(true)
    }),
  )
})
