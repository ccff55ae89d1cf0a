import { createPinia, setActivePinia } from 'pinia'
import { afterEach, expect, it, vi } from 'vitest'
import { BUILT_IN_LOOKS } from '~~/core/look/builtin'
import type { Look } from '~~/core/look/look'
import { DEFAULT_STYLE } from '~~/core/look/siteStyle'
import { useLooks } from './looks'

afterEach(() => void vi.unstubAllGlobals())

const OURS: Look = { ...BUILT_IN_LOOKS[0]!, id: 'ours', name: 'Ours', builtIn: false }

/** A server that keeps looks, and gives its list of them a while after it was asked. */
function slowLists() {
  const kept = [...BUILT_IN_LOOKS]
  const answers: (() => void)[] = []
  vi.stubGlobal('fetch', async (_path: string, init?: RequestInit) => {
    if (init?.method === 'POST') return (kept.push(OURS), Response.json(OURS))
    const items = [...kept]
    await new Promise<void>(resolve => answers.push(resolve))
    return Response.json({ items, uses: [], style: DEFAULT_STYLE, files: [] })
  })
  return async () => {
    await expect.poll(() => answers.length).toBeGreaterThan(0)
    answers.shift()!()
  }
}

it('a look that is made while the list of them is on its way stays', async () => {
  setActivePinia(createPinia())
  const answer = slowLists()
  const looks = useLooks()
  const loading = looks.load()
  const making = looks.create({ name: OURS.name, appearance: OURS.appearance })
  await answer()
  await Promise.all([loading, making])
  expect(looks.byId.has('ours')).toBe(true)
})

it('looks that are known are shown at once while they are read anew', async () => {
  setActivePinia(createPinia())
  const answer = slowLists()
  const looks = useLooks()
  let there = false
  const first = looks.ready().then(() => (there = true))
  await Promise.resolve()
  expect(there).toBe(false)
  await answer()
  await first
  await looks.ready()
  await answer()
})
