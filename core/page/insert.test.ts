import { expect, it } from 'vitest'
import { cardLines } from './insert'

it.each([
  [2, [2]],
  [3, [3]],
  [4, [2, 2]],
  [5, [3, 2]],
  [6, [3, 3]],
  [7, [3, 2, 2]],
  [10, [3, 3, 2, 2]],
])('%i cards stand in lines of %j', (count, lines) => expect(cardLines(count)).toEqual(lines))

it('leaves none out and none alone', () => {
  for (let count = 2; count < 60; count++) {
    const lines = cardLines(count)
    expect(lines.reduce((sum, line) => sum + line)).toBe(count)
    expect(Math.min(...lines)).toBeGreaterThan(1)
  }
})
