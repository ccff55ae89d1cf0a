import { describe, expect, it } from 'vitest'
import { DoubleClicks } from './doubleClicks'
import { isAhead } from './purpose'

// COUNTER Code of Practice, section 7.3: within 30 seconds of each other, of one user and one item, they are one.
describe('double clicks', () => {
  it.each([
    [[0], 1],
    [[0, 29_999], 1],
    [[0, 30_000], 2],
    [[0, 20_000, 40_000], 1],
    [[0, 20_000, 50_000], 2],
    [[0, 1, 2, 31_000, 100_000], 3],
  ])('at %j are %d downloads', (moments, count) => {
    const clicks = new DoubleClicks()
    expect(moments.filter(at => !clicks.repeats('v', 'f', at))).toHaveLength(count)
  })

  it('of others, or of other files, are their own', () => {
    const clicks = new DoubleClicks()
    expect([clicks.repeats('v', 'f', 0), clicks.repeats('w', 'f', 1), clicks.repeats('v', 'g', 2), clicks.repeats('v', 'f', 3)]).toEqual([
      false,
      false,
      false,
      true,
    ])
  })
})

it.each([
  [{ 'sec-purpose': 'prefetch' }, true],
  [{ 'sec-purpose': 'prefetch;prerender' }, true],
  [{ purpose: 'prefetch' }, true],
  [{ 'x-moz': 'prefetch' }, true],
  [{}, false],
  [{ 'sec-purpose': '' }, false],
])('%j is fetched ahead: %s', (headers, ahead) => expect(isAhead(headers as Record<string, string>)).toBe(ahead))
