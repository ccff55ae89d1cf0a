import fc from 'fast-check'
import { expect, it } from 'vitest'
import { includes, shortOf, shortPaths } from './shortPaths'

it('finds just what is in a list', () =>
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat()), fc.nat(), (numbers, asked) => {
      const sorted = Float64Array.from(numbers).sort()
      expect(numbers.every(number => includes(sorted, number))).toBe(true)
      expect(includes(sorted, asked)).toBe(numbers.includes(asked))
    }),
  ))

it('shortens to the first 48 bits of SHA-1', () => {
  // FIPS 180-4, the example "abc": a9993e364706…
  expect(shortOf('abc')).toBe(0xa9993e364706)
  expect([...shortPaths(['abc', 'abc'])]).toEqual([0xa9993e364706, 0xa9993e364706])
})
