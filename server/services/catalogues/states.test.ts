import { expect, it } from 'vitest'
import { firstState } from './states'

it('tells what has changed since a state, as long as that is known', () => {
  const first = firstState()
  const second = first.next(['a', 'b'])
  const third = second.next(['b', 'c'])
  expect(third.changedSince(first.stamp)).toEqual(new Set(['a', 'b', 'c']))
  expect(third.changedSince(second.stamp)).toEqual(new Set(['b', 'c']))
  expect(third.changedSince(third.stamp)).toEqual(new Set())
  // What came after it, or before a list was read anew, or was told by another process.
  expect(second.changedSince(third.stamp)).toBeUndefined()
  expect(firstState().changedSince(third.stamp)).toBeUndefined()
  for (const foreign of ['', 'x', 'other-1', `${third.stamp}x`]) expect(third.changedSince(foreign), foreign).toBeUndefined()
})
