import { createPinia, setActivePinia } from 'pinia'
import { afterEach, expect, it, vi } from 'vitest'
import type { JobItem } from '~~/core/jobs/jobItem'
import { useJobs } from './jobs'
import { useLibrary } from './library'
import { useNotices } from './notices'

afterEach(() => void vi.unstubAllGlobals())

const JOB: JobItem = {
  id: 'j',
  kind: 'unpack',
  by: '',
  name: 'Parcel',
  done: 1,
  total: 1,
  unit: 'files',
  state: 'done',
  error: null,
  extra: {},
  files: ['f'],
  report: [],
}

/** A server whose answers to lists are given one by one, in the order they were asked for. */
function listsInTurn() {
  const waiting: ((items: JobItem[]) => void)[] = []
  vi.stubGlobal('fetch', (_path: string, init?: RequestInit) =>
    init?.method === 'POST'
      ? Promise.resolve(Response.json({ ...JOB, state: 'running' }))
      : new Promise(resolve => waiting.push(items => resolve(Response.json({ items })))),
  )
  return async (items: JobItem[]) => {
    await expect.poll(() => waiting.length).toBeGreaterThan(0)
    waiting.shift()!(items)
  }
}

it.each([
  ['was asked for before it began', []],
  ['told of it already', [{ ...JOB, state: 'running' as const }]],
  ['told of its end already', [JOB]],
])('the end of a job is told once, where a list that came meanwhile %s', async (_, early) => {
  setActivePinia(createPinia())
  useLibrary().refresh = async () => undefined
  const answer = listsInTurn()
  const jobs = useJobs()
  const first = jobs.load()
  const begun = jobs.unpack('z')
  await expect.poll(() => jobs.items.length).toBeGreaterThan(0)
  await answer(early)
  await answer([JOB])
  await Promise.all([first, begun])
  const last = jobs.load()
  await answer([JOB])
  await last
  expect(useNotices().waiting.map(({ text }) => text)).toEqual(['1 file unpacked from “Parcel”.'])
})
