import { describe, expect, it } from 'vitest'
import { contrast } from './contrast'
import { DEFAULT_PALETTE, mix, tonePalettes } from './palette'

describe('contrast', () => {
  // White on #767676 is known as the lightest grey that passes AA; 21:1 is the greatest ratio of WCAG 2.2.
  it.each([
    ['#FFFFFF', '#767676', 4.54],
    ['#FFFFFF', '#000000', 21],
    ['#777777', '#FFFFFF', 4.48],
    ['#123456', '#123456', 1],
  ])('%s on %s is %d', (a, b, ratio) => {
    expect(contrast(a, b)).toBeCloseTo(ratio, 2)
  })

  it('refuses what is not a colour', () => expect(() => contrast('red', '#000000')).toThrow(RangeError))
})

describe.each(Object.entries(tonePalettes(DEFAULT_PALETTE)))(
  "the site's palette, %s, passes WCAG 2.2 AA for text, 4.5:1",
  (_tone, { paper, ink, soft, accent, accentDark, onAccent }) => {
    it.each([
      ['text', ink, paper],
      ['notes', soft, paper],
      ['links and rims', accent, paper],
      ['links under the pointer', accentDark, paper],
      ['slab', onAccent, accent],
      ['slab under the pointer', onAccent, accentDark],
    ])('%s', (_what, words, ground) => expect(contrast(words, ground)).toBeGreaterThanOrEqual(4.5))
  },
)

it('mixes colours channel by channel', () => {
  expect([mix('#FFFFFF', '#000000', 0.5), mix('#FF0000', '#0000FF', 1), mix('#FF0000', '#0000FF', 0)]).toEqual([
    '#808080',
    '#FF0000',
    '#0000FF',
  ])
})
