import { expect, it } from 'vitest'
import { createQueue } from './queue'

it('runs tasks in their order, whatever each takes, also behind one that fails', async () => {
  const queue = createQueue()
  const done: string[] = []
  const slow = queue(async () => {
    await new Promise(resolve => setTimeout(resolve, 20))
    done.push('slow')
    return 1
  })
  const failing = queue(async () => {
    done.push('failing')
    throw new Error('refused')
  })
  const quick = queue(async () => done.push('quick'))
  await expect(slow).resolves.toBe(1)
  await expect(failing).rejects.toThrow('refused')
  await quick
  expect(done).toEqual(['slow', 'failing', 'quick'])
})
