import { expect, test } from '@playwright/test'
import { ROUTES } from '../core/rights/routes'
import { ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { cookieOf } from './support/upload'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

test('whatever is named in an address, or sent, no request of the API is answered by a fault', async () => {
  test.setTimeout(480_000)
  const cookie = await cookieOf(server.url)
  const api = await ownerApi(server.url)
  const first = async (path: string) => (await api<{ items: { id: string }[] }>(path)).items[0]!.id
  const looks = await api<{ items: { appearance: object }[] }>('/looks')
  const there: Record<string, string> = {
    files: await first('/files?limit=1'),
    pages: await first('/pages'),
    catalogues: await first('/catalogues'),
    looks: (await api<{ id: string }>('/looks', { method: 'POST', json: { name: 'Mine', appearance: looks.items[0]!.appearance } })).id,
  }
  // Beyond what the database counts to, longer than names of files can be, of another script, and what every object has.
  const odd = ['99999999999', 'a'.repeat(300), '%F0%9F%8F%BA', '__proto__']
  const queries = [
    'offset=99999999999999999999',
    'from=275760-09-14',
    'limit=1e400',
    'sort=constructor',
    `q=${encodeURIComponent('\\%_[('.repeat(30))}`,
  ]
  const bodies = [
    '{}',
    'null',
    '["x"]',
    '{"files":["__proto__"],"folders":["x"],"ids":["a"],"number":2147483648,"revision":9007199254740991}',
  ]
  // What does not end, and what ends the session that asks.
  const left = new Set(['GET /news', 'DELETE /session', 'DELETE /account', 'POST /account/sessions/end-others'])
  const requests = Object.keys(ROUTES).flatMap(route => {
    const [method, path] = route.split(' ') as [string, string]
    if (left.has(route) || method === 'ALL') return []
    const parts = path.split('/')
    const named = (value: string, known: boolean) =>
      parts.map((part, at) => (part.startsWith(':') ? (known && there[parts[at - 1]!]) || value : part)).join('/')
    // What is there is named where something is asked or sent, not where it would be deleted.
    const addresses = new Set(odd.flatMap(value => [named(value, false), ...(method === 'DELETE' ? [] : [named(value, true)])]))
    if (method === 'GET' && addresses.size === 1) return queries.map(query => ({ method, address: `${path}?${query}`, body: undefined }))
    const sent = method === 'GET' || method === 'DELETE' ? [undefined] : bodies
    // Every body where the first of them are named; the oddest with the others.
    return [...addresses].flatMap((address, at) => (at < 2 ? sent : sent.slice(-1)).map(body => ({ method, address, body })))
  })
  expect(requests.length).toBeGreaterThan(800)
  const faults: string[] = []
  for (const { method, address, body } of requests) {
    const response = await fetch(`${server.url}/api${address}`, { method, body, headers: { cookie, 'Content-Type': 'application/json' } })
    await response.arrayBuffer()
    if (response.status >= 500) faults.push(`${response.status} ${method} ${address} ${body ?? ''}`)
  }
  expect(faults).toEqual([])
})
