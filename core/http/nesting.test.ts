import { describe, expect, it } from 'vitest'
import { holdsNul, isDeeperThan, wellFormed } from './nesting'

const bytes = (text: string) => new TextEncoder().encode(text)

describe('how deep JSON is nested', () => {
  // RFC 8259, section 2: brackets inside a string are characters of it, and \" does not end it.
  it.each([
    ['[[]]', 1, true],
    ['[[]]', 2, false],
    ['[[],[],[]]', 2, false],
    ['{"a":{"b":[1]}}', 2, true],
    ['{"a":{"b":[1]}}', 3, false],
    ['"[[[[[["', 1, false],
    ['["a\\"[[[["]', 1, false],
    ['["a\\\\",[[]]]', 2, true],
    ['', 0, false],
  ])('%s beyond %d: %s', (text, bound, deeper) => expect(isDeeperThan(bytes(text), bound)).toBe(deeper))

  it('is seen before millions of brackets are read', () => expect(isDeeperThan(bytes('['.repeat(3_900_000)), 100)).toBe(true))
})

it.each([
  ['a\0', true],
  ['a', false],
  [{ a: ['b', 'c\0'] }, true],
  [{ 'a\0': 1 }, true],
  [[null, 1, 'x'], false],
])('NUL in %j: %s', (value, holds) => expect(holdsNul(value)).toBe(holds))

// Web IDL, converting to a USVString: each lone surrogate becomes U+FFFD, pairs stay.
it('halves of characters become the sign for none, whole ones stay', () => {
  const read = JSON.parse('{"a\\ud83d":["\\ud83c\\udffa","x\\udffa",null,1,{"b":true}]}') as unknown
  expect(wellFormed(read)).toEqual({ 'a\uFFFD': ['🏺', 'x\uFFFD', null, 1, { b: true }] })
})
