import fc from 'fast-check'
import { expect, it } from 'vitest'
import { SHADES, shadeBounds, shadeOf } from './shades'

it('gives the largest the darkest, none none, and never less to more', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1_000_000 }),
      fc.integer({ min: 0, max: 1_000_000 }),
      fc.integer({ min: 0, max: 1_000_000 }),
      (largest, one, other) => {
        const [less, more] = [Math.min(one, other, largest), Math.min(Math.max(one, other), largest)]
        expect(shadeOf(largest, largest)).toBe(SHADES)
        expect(shadeOf(0, largest)).toBe(0)
        expect(shadeOf(less, largest)).toBeLessThanOrEqual(shadeOf(more, largest))
      },
    ),
  )
})

it('says of each shade which counts it stands for: each count in one, and none left out', () => {
  for (const largest of [1, 2, 3, 7, 10, 100, 1204, 99_999]) {
    const bounds = shadeBounds(largest)
    expect([bounds[0]!.from, bounds.at(-1)!.to]).toEqual([1, largest])
    bounds.slice(1).forEach(({ from }, place) => expect(from).toBe(bounds[place]!.to + 1))
    for (const { shade, from, to } of bounds) expect([shadeOf(from, largest), shadeOf(to, largest)]).toEqual([shade, shade])
  }
})
