import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { LinkChecker, LinkState } from 'linkinator'
import type { WalkState } from '../core/walk/finding'
import { CLOSED_GATE } from '../core/gate/gate'
import { ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

/** All that an independent crawler finds on the published site, from its first page onwards. */
async function crawl() {
  const { links } = await new LinkChecker().check({
    path: server.url,
    recurse: true,
    timeout: 60_000,
    retry: false,
    // Nothing outside this machine can be asked; the site's own public address stands in what describes its pages.
    linksToSkip: async link => !link.startsWith(server.url),
  })
  return links.filter(link => link.state !== LinkState.SKIPPED)
}
const pathsOf = (links: Awaited<ReturnType<typeof crawl>>, state: LinkState) => [
  ...new Set(links.filter(link => link.state === state).map(link => link.url.replace(server.url, '').split('?')[0]!)),
]

test('an independent crawler finds no broken link that the walk has missed', async () => {
  // It asks for everything there is, twice.
  test.setTimeout(900_000)
  const api = await ownerApi(server.url)
  const links = await crawl()
  const arrived = pathsOf(links, LinkState.OK)
  // It has been everywhere: pages, files, a bundle, a signpost, pictures.
  expect(arrived).toEqual(expect.arrayContaining(['/trade', '/classes', '/to/class-timetable', '/files/all-safety-data-sheets.zip']))
  expect(arrived.filter(path => path.startsWith('/files/')).length).toBeGreaterThan(20)
  const { items } = await api<{ items: { handle: string; sha256: string; gate: string | null }[] }>('/files?limit=500')
  // What stands behind a gate is closed to a crawler, and to it alone: the walk passes gates.
  const closed = new Set(items.filter(({ gate }) => gate !== null && gate !== CLOSED_GATE).map(({ handle }) => `/files/${handle}`))
  expect(closed.size).toBe(3)
  expect(pathsOf(links, LinkState.BROKEN).filter(path => !closed.has(path))).toEqual([])
  const { findings } = await api<WalkState>('/walk')
  // What leads nowhere is only in drafts: visitors are shown no link to follow there.
  expect(findings.filter(({ cost, draftOnly }) => cost === 'blocked' && !draftOnly)).toEqual([])

  // Bytes vanish behind Trough's back: what the crawler finds broken then, the walk tells, too.
  const gone = ['marlpit-k60-manual.pdf', 'joining-form.docx'].map(handle => items.find(item => item.handle === handle)!)
  await server.stop()
  for (const { sha256 } of gone) await rm(join(server.data, 'store/sha256', sha256.slice(0, 2), sha256.slice(2, 4), sha256))
  server = await startServer(server.data)
  const broken = pathsOf(await crawl(), LinkState.BROKEN).filter(path => !closed.has(path))
  expect(broken).toEqual(expect.arrayContaining(gone.map(({ handle }) => `/files/${handle}`)))
  const walked = await (await ownerApi(server.url))<WalkState>('/walk', { method: 'POST' })
  const told = new Set(walked.findings.filter(({ check }) => check === 'answers').map(({ detail }) => detail.split(' ')[0]))
  // A bundle with one of them in it is broken off on its way: the walk asks for its head alone.
  const files = broken.filter(path => path.startsWith('/files/') && !path.endsWith('.zip'))
  expect(told.size).toBeGreaterThanOrEqual(files.length)
})
