import { expect, it } from 'vitest'
import { moved } from './moved'

it('moves one item by a place, and leaves the list it was given', () => {
  const list = ['a', 'b', 'c'] as const
  expect(moved(list, 2, -1)).toEqual(['a', 'c', 'b'])
  expect(moved(list, 0, 1)).toEqual(['b', 'a', 'c'])
  expect(list).toEqual(['a', 'b', 'c'])
})
