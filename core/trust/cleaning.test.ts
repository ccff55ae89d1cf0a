import { expect, it } from 'vitest'
import { outdatedEditions, type EditionFacts } from './cleaning'

const DAY = 24 * 60 * 60 * 1000
const NOW = Date.parse('2026-11-25T12:00:00Z')
/** Edition `n` is `100 - 10 n` days old; the fourth is current. */
const editions = (change: Partial<EditionFacts> = {}) =>
  [1, 2, 3, 4, 5].map((number): EditionFacts => ({
    file: 'list',
    number,
    created: NOW - (100 - 10 * number) * DAY,
    current: number === 4,
    pinned: false,
    currentNumber: 4,
    ...change,
  }))
const gone = (rules: { keepEditions: number | null; editionDays: number }, facts = editions()) =>
  outdatedEditions(facts, rules, NOW).map(edition => edition.number)

it('all are kept unless a rule says otherwise', () => expect(gone({ keepEditions: null, editionDays: 0 })).toEqual([]))
it('the newest earlier ones are kept; the current one and what waits always', () => {
  expect(gone({ keepEditions: 0, editionDays: 0 })).toEqual([3, 2, 1])
  expect(gone({ keepEditions: 2, editionDays: 0 })).toEqual([1])
})
it('young ones are kept in any case', () => expect(gone({ keepEditions: 0, editionDays: 75 })).toEqual([2, 1]))
it('what is public by its number stays', () => expect(gone({ keepEditions: 0, editionDays: 0 }, editions({ pinned: true }))).toEqual([]))
it('each file has its own few', () =>
  expect(gone({ keepEditions: 1, editionDays: 0 }, [...editions(), ...editions({ file: 'chart' })])).toEqual([2, 2, 1, 1]))
