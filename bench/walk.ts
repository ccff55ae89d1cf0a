import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { OWNER } from '../demo/owner'
import type { FileItem } from '../core/files/fileItem'
import { newButton } from '../core/page/insert'
import type { PageDetails } from '../core/page/pageItem'
import type { Block } from '../core/page/schema'
import type { WalkState } from '../core/walk/finding'
import { openTrough } from '../server/trough'
import { ownerApi } from '../e2e/support/owner'
import { startServer } from '../e2e/support/server'
import { median, pacedP99, timed } from './measure'
import { putRandom } from './putRandom'
import { PacedTimes } from './pace'
import { report, reportPaced, sayEnd } from './report'

const PAGES = 500
const PER_PAGE = 10
const FILES = 1000
const SIZE = 20_000
const STARTS = 3
const ROUNDS = 5
const PACE = 100

const folder = await mkdtemp(join(tmpdir(), 'trough-bench-walk-'))

/** A site of many pages; one file is on all of them, the others on some five. */
async function makeSite(): Promise<{ everywhere: FileItem; instead: FileItem }> {
  const trough = await openTrough({ data: folder })
  await trough.account.create(OWNER.email, OWNER.password)
  const put = (name: string) => putRandom(trough, name, SIZE)
  const [everywhere, instead] = [await put('everywhere-2026-11.bin'), await put('instead-2026-12.bin')]
  await putRandom(trough, 'everywhere-2026-12.bin', SIZE / 2, null, everywhere.id)
  await trough.library.showEdition(everywhere.id, 1)
  const files: FileItem[] = []
  for (let index = 0; index < FILES; index++) files.push(await put(`sheet-${index}-2026-11.bin`))
  for (let index = 0; index < PAGES; index++) {
    const page = await trough.pages.create({ title: `Page ${index}` })
    const placed = [everywhere, ...Array.from({ length: PER_PAGE - 1 }, (_, place) => files[(index * (PER_PAGE - 1) + place) % FILES]!)]
    const content = placed.map((file): Block => ({
      type: 'downloadButton',
      attrs: newButton({ kind: 'file', id: file.id }, `${file.title} on page ${index}`),
    }))
    await trough.pages.saveDraft(page.id, { title: page.title, revision: page.revision, draft: { type: 'doc', content } })
    await trough.pages.publish(page.id)
  }
  await trough.close()
  return { everywhere, instead }
}

console.log(`\nA walk over ${PAGES} pages with ${PAGES * PER_PAGE} placements of ${FILES + 1} files of 20 kB`)
const { everywhere, instead } = await makeSite()

async function start() {
  const server = await startServer(folder)
  const api = await ownerApi(server.url)
  // New files are read in first, as on any site that has been there for a while.
  while ((await api<{ waiting: number }>('/reading')).waiting) await new Promise(resolve => setTimeout(resolve, 200))
  return { server, api, walk: () => api<WalkState>('/walk', { method: 'POST' }) }
}

const firsts = new PacedTimes()
let { server, api, walk } = await start()
try {
  for (let round = 1; ; round++) {
    await firsts.add(async () => 1000 * (await timed(walk)))
    if (round === STARTS) break
    await server.stop()
    ;({ server, api, walk } = await start())
  }
  reportPaced('the first walk after a start, every byte read, median', median, firsts, 8000)
  report('a walk after that', await timed(walk), 's', { most: 10 })
  const state = await api<WalkState>('/walk')
  report('placements walked', state.placements, '', { least: PAGES * PER_PAGE })
  report('findings', state.findings.length, '', { most: 0 })

  const { items } = await api<{ items: PageDetails[] }>('/pages')
  const page = await api<PageDetails>(`/pages/${items.find(({ edge }) => !edge)!.id}`)
  const again = new PacedTimes()
  for (let round = 0, { revision } = page; round < ROUNDS; round++) {
    const [first, ...rest] = page.draft.content
    const label = `Round ${round}`
    const draft = { type: 'doc', content: [{ ...first, attrs: { ...(first as { attrs: object }).attrs, label } }, ...rest] }
    ;({ revision } = await api<{ revision: number }>(`/pages/${page.id}/draft`, {
      method: 'PUT',
      json: { title: page.title, draft, revision },
    }))
    await api(`/pages/${page.id}/publish`, { method: 'POST', json: {} })
    await again.add(async () => 1000 * (await timed(() => api('/walk'))))
  }
  reportPaced('walked again after one page changed, median', median, again, 300)

  const file = `${server.url}/files/${everywhere.handle}`
  const [idle, busy]: [number[], number[]] = [[], []]
  for (let round = 0; round < ROUNDS; round++) {
    idle.push(await pacedP99(file, PACE, 3))
    let walking = true
    const walks = (async () => {
      while (walking) await walk()
    })()
    busy.push(await pacedP99(file, PACE, 3))
    walking = false
    await walks
  }
  report('p99 of a 20 kB delivery at 100/s, idle, median of 5', median(idle), 'ms')
  report('p99 while everything is walked again and again', median(busy), 'ms')
  report('against idle', median(busy) / median(idle), 'times', { most: 2 })

  const slugs = items.filter(({ edge }) => !edge).map(({ slug }) => slug)
  for (const slug of slugs) await (await fetch(`${server.url}/${slug}`)).text()
  const showing = async (words: string) => {
    let count = 0
    for (const slug of slugs) if ((await (await fetch(`${server.url}/${slug}`)).text()).includes(words)) count++
    return count
  }
  // Half its size: the second line of each button says so.
  report(
    'turning to the next edition of the file on all pages',
    1000 * (await timed(() => api(`/files/${everywhere.id}/edition`, { method: 'PUT', json: { number: 2 } }))),
    'ms',
    { most: 100 },
  )
  report('pages that show it to whoever asks then', await showing('10 kB'), '', { least: PAGES })
  const replaced = await timed(() =>
    api('/selection/remove', { method: 'POST', json: { files: [everywhere.id], folders: [], replaceBy: instead.id } }),
  )
  report('putting another file in its place on all pages, all or none', replaced, 's')
  report('pages that lead to that file then', await showing(instead.handle), '', { least: PAGES })
} finally {
  await server.remove()
  await rm(folder, { recursive: true, force: true })
}
process.exitCode = sayEnd()
