import { expect, it } from 'vitest'
import { kept } from './kept'

it('is read once, anew after it was forgotten, and not kept where it changed while it was read', async () => {
  let answer: (value: string) => void = () => undefined
  let readings = 0
  const one = kept(() => {
    readings++
    return new Promise<string>(resolve => (answer = resolve))
  })
  const [first, second] = [one.get(), one.get()]
  expect(one.now()).toBeUndefined()
  one.forget()
  answer('old')
  expect([await first, await second]).toEqual(['old', 'old'])
  expect(one.now()).toBeUndefined()
  const third = one.get()
  answer('new')
  expect([await third, await one.get(), one.now(), readings]).toEqual(['new', 'new', 'new', 2])
})

it('is read again where reading failed', async () => {
  let fails = true
  const one = kept(async () => {
    if (fails) throw new Error('no')
    return 1
  })
  await expect(one.get()).rejects.toThrow('no')
  fails = false
  expect(await one.get()).toBe(1)
})
