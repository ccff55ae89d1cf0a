import fc from 'fast-check'
import { expect, it } from 'vitest'
import { cut, wholeAt } from './cut'

it.each([
  ['kiln', 2, 'ki'],
  ['kiln', 9, 'kiln'],
  ['', 3, ''],
  ['a🏺b', 1, 'a'],
  ['a🏺b', 2, 'a'],
  ['a🏺b', 3, 'a🏺'],
  ['🏺', 0, ''],
])('%s to %d: %s', (text, most, shown) => expect(cut(text, most)).toBe(shown))

it('leaves whole characters, at most one unit less than there is room for', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), fc.nat(40), (text, most) => {
      const left = cut(text, most)
      expect(left.isWellFormed()).toBe(true)
      expect(text.slice(left.length).isWellFormed()).toBe(true)
      expect(left.length).toBeGreaterThanOrEqual(Math.min(most, text.length) - 1)
      expect(wholeAt(text, left.length)).toBe(left.length)
    }),
  )
})
