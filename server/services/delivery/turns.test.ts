import { expect, it } from 'vitest'
import { Turns } from './turns'

it('lets one address have so many turns, others theirs, and the longest waiting next', async () => {
  const turns = new Turns(2)
  const order: string[] = []
  const [first, second] = [await turns.take('a'), await turns.take('a')]
  const third = turns.take('a').then(give => (order.push('third'), give))
  const fourth = turns.take('a').then(give => (order.push('fourth'), give))
  const other = await turns.take('b')
  await Promise.resolve()
  expect(order).toEqual([])
  first()
  ;(await third)()
  const last = await fourth
  expect(order).toEqual(['third', 'fourth'])
  for (const give of [second, last, other]) give()
  // Nothing is kept of who has left.
  expect((turns as unknown as { taken: Map<string, number> }).taken.size).toBe(0)
})
