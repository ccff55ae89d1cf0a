import { setImmediate as turn } from 'node:timers/promises'
import { afterEach, expect, it, vi } from 'vitest'
import { atLeisure, oneATurn } from './oneATurn'

afterEach(() => vi.useRealTimers())

it('gives one a turn, in their order, and what came meanwhile is not behind all of them', async () => {
  const order: string[] = []
  const all = Promise.all(['first', 'second', 'third'].map(name => oneATurn().then(() => order.push(name))))
  // What comes by itself with the next turn of the loop, as a request does.
  setImmediate(() => order.push('visitor'))
  await all
  expect(order).toEqual(['first', 'second', 'visitor', 'third'])
})

it.each([
  ['one a turn', oneATurn],
  ['at leisure', atLeisure],
])('does not keep one waiting for a turn who asks alone: %s', async (_, asks) => {
  for (let count = 0; count < 3; count++) {
    await turn()
    let isNext = false
    setImmediate(() => (isNext = true))
    await asks()
    expect(isNext).toBe(false)
  }
})

it('lets the loop rest after each of those that are in no hurry', async () => {
  await turn()
  vi.useFakeTimers({ toFake: ['setTimeout'] })
  const order: string[] = []
  for (const name of ['first', 'second', 'third']) void atLeisure().then(() => order.push(name))
  const turns = async () => {
    for (let count = 0; count < 5; count++) await turn()
    return [...order]
  }
  expect(await turns()).toEqual(['first'])
  vi.advanceTimersByTime(2)
  expect(await turns()).toEqual(['first', 'second'])
  vi.advanceTimersByTime(2)
  expect(await turns()).toEqual(['first', 'second', 'third'])
})
