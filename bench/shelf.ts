import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { pageOf, shelf, words } from '../core/testing/pages'
import { makePdf } from '../demo/pdf'
import { seeded } from '../demo/random'
import { kilnManual } from '../demo/texts'
import { ownerApi } from '../e2e/support/owner'
import { startServer } from '../e2e/support/server'
import { cookieOf, upload } from '../e2e/support/upload'
import { makeBigLibrary, rareWord, wordOfRank } from './bigLibrary'
import { median, p95 } from './measure'
import { inPace } from './pace'
import { report, reportPaced, sayEnd } from './report'

const FILES = 10_000
const ROUNDS = 60
const PLACEMENT = 'shelf00001'

const folder = await mkdtemp(join(tmpdir(), 'trough-bench-shelf-'))
const random = seeded(23)
// All of them in one folder.
await makeBigLibrary(folder, FILES, 1)
let server = await startServer(folder)
try {
  const [cookie, api] = [await cookieOf(server.url), await ownerApi(server.url)]
  const source = { kind: 'folder' as const, id: 'folder1', order: 'title' as const, below: 'no' as const }
  const page = await api<{ id: string; title: string; revision: number; slug: string }>('/pages', {
    method: 'POST',
    json: { title: 'All' },
  })
  const draft = pageOf(words('All files'), shelf({ placement: PLACEMENT, source, search: true }))
  await api(`/pages/${page.id}/draft`, { method: 'PUT', json: { title: 'All', draft, revision: page.revision } })
  await api(`/pages/${page.id}/publish`, { method: 'POST', json: { despite: true } })

  /** Milliseconds of an answer to a visitor, read whole. */
  async function ask(path: string): Promise<number> {
    const start = performance.now()
    const response = await fetch(server.url + path, { headers: { 'Accept-Encoding': 'gzip' } })
    await response.arrayBuffer()
    if (!response.ok) throw new Error(`${response.status} for ${path}`)
    return performance.now() - start
  }
  const each = (pathOf: (round: number) => string, before?: (round: number) => Promise<unknown>) =>
    inPace(ROUNDS, async round => {
      await before?.(round)
      return ask(pathOf(round))
    })
  const found = (query: Record<string, string | number>) =>
    `/shelves/find?${new URLSearchParams({ in: PLACEMENT, ...Object.fromEntries(Object.entries(query).map(([name, value]) => [name, String(value)])) })}`

  console.log(`\nA shelf of ${FILES.toLocaleString()} files, by HTTP, ${ROUNDS} requests each`)
  await ask(`/${page.slug}`)
  const described = (round: number) => api('/folders/folder1', { method: 'PATCH', json: { description: `Round ${round}` } })
  reportPaced('its page, written anew, median', median, await each(() => `/${page.slug}`, described), 15)
  const html = await (await fetch(`${server.url}/${page.slug}`)).text()
  const hits = await (await fetch(server.url + found({ q: wordOfRank(3) }))).text()
  report('a page of results, gzip', gzipSync(hits).length / 1000, 'kB', { most: 14 })
  report('the page of the shelf, with its first files, gzip', gzipSync(html).length / 1000, 'kB')
  const some = (most: number) => 1 + Math.floor(random() * most)
  const parts = ['winter', 'gla', 'kiln', 'manual', '47', 'red chart', 'stock', 'trade price']
  const SEARCHES: [what: string, most: number, queryOf: (round: number) => Parameters<typeof found>[0]][] = [
    ['a part of a name', 50, round => ({ q: parts[round % parts.length]!, page: some(9) + 9 * round })],
    ['narrowed and sorted', 50, round => ({ kind: 'document', sort: ['title', '-size', '-changed'][round % 3]!, page: round + 1 })],
    ['words inside, ranks 1 to 4000', 100, () => ({ q: wordOfRank(Math.floor(4000 ** random())), page: some(3) })],
    ['a word in one document', 100, () => ({ q: rareWord(some(FILES - 1)) })],
  ]
  for (const [what, most, queryOf] of SEARCHES) reportPaced(`${what}, p95`, p95, await each(round => found(queryOf(round))), most)

  console.log('\nA look at a manual of some 30 pages')
  const { sections, ...rest } = kilnManual('B1')
  const bytes = await makePdf({ ...rest, sections: [...sections, ...sections] }, new Date('2026-11-02'))
  const id = await upload(server.url, 'manual.pdf', bytes, cookie)
  while ((await api<{ waiting: number }>('/reading')).waiting) await new Promise(resolve => setTimeout(resolve, 100))
  const { handle, facts } = await api<{ handle: string; facts: { pages: number } }>(`/files/${id}`)
  report('its pages', facts.pages, '')
  await ask(`/see/${handle}`)
  const pages = Array.from({ length: facts.pages - 1 }, (_, index) => index + 2)
  const timesOf = (pathOf: (number: number) => string) => inPace(pages.length, round => ask(pathOf(pages[round]!)))
  reportPaced('a page, the first time, p95', p95, await timesOf(number => `/see/${handle}?page=${number}`), 500)
  reportPaced('a page that was looked at before, p95', p95, await timesOf(number => `/see/${handle}?page=${number}`), 5)
  report(
    'a page that is drawn, with words marked, p95',
    p95((await timesOf(number => `/see/${handle}?page=${number}&find=cone`)).times),
    'ms',
  )

  console.log('\nAll files are read anew')
  const idle = await each(() => `/${page.slug}`)
  // As after a restore: nothing is there of what was made of the files.
  await server.stop()
  await rm(join(folder, 'derived'), { recursive: true })
  server = await startServer(folder, { port: server.port })
  await ask(`/${page.slug}`)
  const meanwhile = await each(() => `/${page.slug}`)
  if ((await api<{ waiting: number }>('/reading')).waiting < FILES / 2) throw new Error('The files were not being read anew.')
  report('its page while all files are read anew, to idle, medians', median(meanwhile.times) / median(idle.times), 'times', { most: 3 })
} finally {
  await server.remove()
  await rm(folder, { recursive: true, force: true })
}
process.exit(sayEnd())
