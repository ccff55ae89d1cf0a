import { expect, it } from 'vitest'
import fc from 'fast-check'
import { readSeeQuery, seeHref, type SeeQuery } from './seeAddress'

const read = (query: string) => readSeeQuery(new URLSearchParams(query))

it('says what of a file is asked for, and reads it again', () => {
  const query = fc.record({
    page: fc.integer({ min: 1, max: 999_999_999 }),
    sheet: fc.integer({ min: 1, max: 200 }),
    find: fc.constantFrom('kiln', 'kiln & glaze', '釉薬', '1 %', 'a=b#c'),
    at: fc.constantFrom('aaaaaaaaaa', 'b1c2d3'),
  })
  fc.assert(
    fc.property(query, (asked: SeeQuery) => {
      expect(read(seeHref('a.pdf', asked).split('?')[1]!)).toEqual(asked)
    }),
  )
  expect(seeHref('釉薬.pdf')).toBe('/see/%E9%87%89%E8%96%AC.pdf')
})

it('takes anything typed there for what it can be', () => {
  for (const page of ['0', '-1', '1e9', '1.5', '99999999999', 'x', '']) expect(read(`page=${page}`)).toMatchObject({ page: 0 })
  expect(read('sheet=-3&at=<script>')).toEqual({ page: 0, sheet: 1, find: '' })
  expect(read(`find=${'x'.repeat(10_000)}`).find).toHaveLength(200)
  // NUL and halves of pairs are not kept by databases.
  expect(read('find=%00 kiln%0A').find).toBe('kiln')
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), text => {
      expect(read(`find=${encodeURIComponent(text.toWellFormed())}`).find.isWellFormed()).toBe(true)
    }),
  )
})
