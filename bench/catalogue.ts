import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { chromium } from '@playwright/test'
import type { CatalogueItem } from '../core/catalogue/catalogue'
import type { EntryItem } from '../core/catalogue/entry'
import type { ImportLook } from '../core/catalogue/import'
import type { JobItem } from '../core/jobs/jobItem'
import type { PageDetails } from '../core/page/pageItem'
import { OWNER } from '../demo/owner'
import { seeded } from '../demo/random'
import { openDesk, ownerApi } from '../e2e/support/owner'
import { startServer } from '../e2e/support/server'
import { beginUpload, cookieOf, sendFrom } from '../e2e/support/upload'
import { openTrough } from '../server/trough'
import { median, medianRatio, p95, pacedP99 } from './measure'
import { PacedTimes } from './pace'
import { report, reportPaced, sayEnd } from './report'

const ENTRIES = 10_000
const FIELDS = 20
const ROUNDS = 200
const PACE = 50

const WORDS = ['white', 'red', 'smooth', 'coarse', 'stoneware', 'porcelain', 'clay', 'glaze', 'kiln', 'tile', 'slip', 'cone']
const random = seeded(20)
const word = () => WORDS[Math.floor(random() * WORDS.length)]!

/** A table of as many rows and columns: names, numbers, choices, prices and sentences. */
function makeTable(): string {
  const extra = Array.from({ length: FIELDS - 6 }, (_, at) => `Fact ${at + 1}`)
  const head = ['Number', 'Name', 'Body', 'Price', 'Weight', 'About', ...extra]
  const rows = Array.from({ length: ENTRIES }, (_, at) => [
    `N${100_000 + at}`,
    `${word()} ${word()} ${at}`,
    ['Stoneware', 'Earthenware', 'Porcelain', 'Raku'][at % 4],
    `£${(5 + (at % 90)).toFixed(2)}`,
    `${1 + (at % 25)} kg`,
    `${word()} ${word()} ${word()} for ${word()} and ${word()}`,
    ...extra.map((_, column) => `${word()} ${column} ${at % 97}`),
  ])
  return [head, ...rows].map(cells => cells.join(',')).join('\r\n')
}

const folder = await mkdtemp(join(tmpdir(), 'trough-bench-catalogue-'))
const trough = await openTrough({ data: folder })
await trough.account.create(OWNER.email, OWNER.password)
await trough.close()
const server = await startServer(folder)
try {
  const [cookie, api] = [await cookieOf(server.url), await ownerApi(server.url)]
  const bytes = Buffer.alloc(20_000, 'x')
  const sent = await sendFrom(await beginUpload(server.url, cookie, 'small.bin', bytes.length), cookie, 0, bytes)
  const small = `${server.url}/files/${(await api<{ handle: string }>(`/files/${sent.headers.get('trough-file')}`)).handle}`

  console.log(`\n${ENTRIES.toLocaleString('en')} entries of ${FIELDS} fields`)
  const table = makeTable()
  /** 99th percentiles of a delivery, in milliseconds: before a table comes in, and meanwhile. */
  const waits = { before: [] as number[], meanwhile: [] as number[] }

  /** Brings the table in as a catalogue of its own; gives its identity and the seconds that took. */
  async function bringIn(name: string): Promise<{ catalogue: string; seconds: number }> {
    waits.before.push(await pacedP99(small, PACE, 4))
    const start = performance.now()
    const look = await api<ImportLook>(`/entry-imports?name=${name}.csv`, { method: 'POST', body: table })
    const { job, catalogue } = await api<{ job: JobItem; catalogue: string }>(`/entry-imports/${look.id}/bring`, {
      method: 'POST',
      json: look.plan,
    })
    const visitors = pacedP99(small, PACE, 4)
    for (;;) {
      const now = (await api<{ items: JobItem[] }>('/jobs')).items.find(({ id }) => id === job.id)
      if (now?.state === 'failed') throw new Error(String(now.error))
      if (now?.state !== 'running') break
      await wait(50)
    }
    const seconds = (performance.now() - start) / 1000
    waits.meanwhile.push(await visitors)
    return { catalogue, seconds }
  }
  const { catalogue, seconds } = await bringIn('things')
  report('brought in from CSV, read and written', seconds, 's', { most: 10 })

  const { list, layout } = await api<{ list: string; layout: string }>(`/catalogues/${catalogue}/pages`, { method: 'POST' })
  const published = performance.now()
  await api(`/catalogues/${catalogue}/entries/publish`, { method: 'POST', json: {} })
  report('all of them put live', (performance.now() - published) / 1000, 's')
  await api(`/pages/${layout}/publish`, { method: 'POST', json: {} })
  await api(`/pages/${list}/publish`, { method: 'POST', json: {} })
  const page = await api<PageDetails>(`/pages/${list}`)
  const placement = (page.live!.document.content[0] as { attrs: { placement: string } }).attrs.placement
  const { slug } = (await api<{ items: CatalogueItem[] }>('/catalogues')).items[0]!

  async function ask(path: string): Promise<number> {
    const begun = performance.now()
    const response = await fetch(server.url + path)
    await response.arrayBuffer()
    if (!response.ok) throw new Error(`${response.status} for ${path}`)
    return performance.now() - begun
  }
  const { items } = await api<{ items: EntryItem[] }>(`/catalogues/${catalogue}/entries`)
  // Each of them for the first time: nothing is kept of it.
  const searched = new PacedTimes()
  const pages: number[] = []
  for (let round = 0; round < ROUNDS; round++) {
    const asked = new URLSearchParams({ list: placement, q: `${word()} ${round}`, ...(round % 2 && { body: 'porcelain' }) })
    await searched.add(() => ask(`/${page.slug}?${asked}`))
    pages.push(await ask(`/${slug}/${items[round * 49]!.slug}`))
  }
  reportPaced('a page of the list, searched and narrowed, p95', p95, searched, 50)
  const again: number[] = []
  for (let round = 0; round < ROUNDS; round++) again.push(await ask(`/${slug}/${items[round * 49]!.slug}`))
  report('the page of an entry asked for once more, there and back, median', median(again), 'ms')
  report('the first time above that, median', median(pages) - median(again), 'ms', { most: 5 })

  const saved = new PacedTimes()
  const shown: number[] = []
  for (let round = 0; round < 30; round++) {
    const entry = items[round * 50]!
    let changed: EntryItem[] = []
    await saved.add(async () => {
      const begun = performance.now()
      ;({ items: changed } = await api<{ items: EntryItem[] }>(`/catalogues/${catalogue}/entries`, {
        method: 'PATCH',
        json: { changes: [{ id: entry.id, revision: entry.revision, values: { title: `Changed ${round}` } }] },
      }))
      return performance.now() - begun
    })
    await api(`/catalogues/${catalogue}/entries/publish`, { method: 'POST', json: { ids: [entry.id] } })
    const asked = performance.now()
    const html = await (await fetch(`${server.url}/${slug}/${changed[0]!.slug}`)).text()
    shown.push(performance.now() - asked)
    if (!html.includes(`<h1>Changed ${round}</h1>`)) throw new Error('The change does not show.')
  }
  reportPaced('a cell saved, p95', p95, saved, 100)
  report('its page asked for after it went live, p95', p95(shown), 'ms')

  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] })
  const desk = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await openDesk(desk, server.url, '/desk/catalogues')
  const opened = new PacedTimes()
  for (let round = 0; round < 5; round++) {
    await desk.getByRole('link', { name: 'Things' }).waitFor()
    await opened.add(() =>
      desk.evaluate(async () => {
        const begun = performance.now()
        ;[...document.querySelectorAll<HTMLAnchorElement>('.margin-board a')].find(({ textContent }) => textContent === 'Things')!.click()
        while (!document.querySelector('.entry-table [data-cell]')) await new Promise(requestAnimationFrame)
        return performance.now() - begun
      }),
    )
    await desk.goBack()
  }
  reportPaced('the table opened on the desk, median of 5', median, opened, 300)
  await desk.getByRole('link', { name: 'Things' }).click()
  await desk.locator('.entry-table [data-cell]').first().waitFor()
  const blank = await desk.evaluate(async () => {
    const scroller = document.querySelector<HTMLElement>('.entry-table')!
    let [empty, frames] = [0, 0]
    for (let top = 0; top < scroller.scrollHeight && frames < 240; top += 400, frames++) {
      scroller.scrollTop = top
      await new Promise(requestAnimationFrame)
      await new Promise(requestAnimationFrame)
      const { left, top: y } = scroller.getBoundingClientRect()
      const middle = document.elementFromPoint(left + 120, y + scroller.clientHeight / 2)
      if (!middle?.closest('.rows > .row')) empty++
    }
    return empty / frames
  })
  report('frames of scrolling with a blank row in the middle', blank, 'of 1', { most: 0 })
  await browser.close()

  // One spell of four seconds has two hundred deliveries, and the second slowest of them says little.
  for (const name of ['wares', 'stuffs', 'goods', 'items']) await bringIn(name)
  report('p99 of a 20 kB delivery at 50/s before a table comes in, median of 5', median(waits.before), 'ms')
  report('p99 meanwhile', median(waits.meanwhile), 'ms')
  report('p99 meanwhile against before, in turn', medianRatio(waits.meanwhile, waits.before), 'times', { most: 2 })
} finally {
  await server.remove()
  await rm(folder, { recursive: true, force: true })
}
process.exitCode = sayEnd()
