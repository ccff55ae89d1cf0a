import { expect, it } from 'vitest'
import { createJobs } from './jobs'

it('tells of a job when it begins, as it goes on, when it ends, and when it is forgotten', async () => {
  let told = 0
  const jobs = createJobs(() => told++)
  let finish: () => void = () => undefined
  const { id } = jobs.start(
    { kind: 'unpack', name: 'manuals.zip', unit: 'files', by: '' },
    () => new Promise<void>(resolve => (finish = resolve)),
  )
  expect(told).toBe(1)
  await expect.poll(() => told).toBeGreaterThan(2)
  finish()
  await jobs.ended(id)
  const atEnd = told
  expect(jobs.get(id).state).toBe('done')
  await new Promise(resolve => setTimeout(resolve, 1000))
  expect(told).toBe(atEnd)
  await jobs.stop(id)
  expect(told).toBe(atEnd + 1)
})
