import { expect, it } from 'vitest'
import type { TypefaceName } from '../../../core/look/typefaces'
import { createMeasuring } from './measuring'

const noneOfItsOwn = () => Promise.resolve(undefined)
const setIn = (text: TypefaceName) => ({ type: { heading: text, text }, own: [] })

it('measures words in the fonts that are served, wider for heavier and larger ones', async () => {
  const measuring = createMeasuring(noneOfItsOwn)
  for (const typeface of ['hanken', 'literata'] as const) {
    const measure = (await measuring.in(setIn(typeface)))!
    const [plain, bold, large] = [measure('Price list', 16, 400), measure('Price list', 16, 700), measure('Price list', 32, 400)]
    expect(bold).toBeGreaterThan(plain)
    expect(large).toBeCloseTo(2 * plain)
    expect(measure('', 16, 400)).toBe(0)
  }
  // Words that the font has no letters for have a width all the same.
  expect((await measuring.in(setIn('hanken')))!('陶器', 16, 400)).toBeGreaterThan(0)
})

it('measures nothing in fonts that only readers have', async () =>
  expect(await createMeasuring(noneOfItsOwn).in(setIn('serif'))).toBeUndefined())
