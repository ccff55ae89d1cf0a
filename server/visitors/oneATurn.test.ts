import { expect, it } from 'vitest'
import { oneATurn } from './oneATurn'

it('gives one a turn, in their order, and what came meanwhile is not behind all of them', async () => {
  const order: string[] = []
  const all = Promise.all(['first', 'second', 'third'].map(name => oneATurn().then(() => order.push(name))))
  // What comes by itself with the next turn of the loop, as a request does.
  setImmediate(() => setImmediate(() => order.push('visitor')))
  await all
  expect(order).toEqual(['first', 'second', 'visitor', 'third'])
})
