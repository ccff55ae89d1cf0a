import { KEEPS_LITTLE } from '../core/privacy/kept'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'
import { chromium, type Locator, type Page, type Request } from '@playwright/test'
import { buildDemo } from '../demo/build'
import { BUILT_IN_LOOKS } from '../core/look/builtin'
import { DEFAULT_STYLE } from '../core/look/siteStyle'
import { speechOf } from '../core/language/speech'
import { renderPage } from '../core/page/document'
import { flat } from '../core/shelf/listing'
import { newButton } from '../core/page/insert'
import type { PageDetails } from '../core/page/pageItem'
import type { PageDocument } from '../core/page/schema'
import { openDesk, ownerApi } from '../e2e/support/owner'
import { startServer, type RunningServer } from '../e2e/support/server'
import { inTurn, median, medianRatio } from './measure'
import { PacedTimes } from './pace'
import { report, reportPaced, sayEnd } from './report'

const CHROMIUM = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]
const ROUNDS = 9
const folder = await mkdtemp(join(tmpdir(), 'trough-bench-page-'))

/** Bytes of HTML and CSS that a visitor's browser is sent, without pictures and fonts. */
async function measureWeight(server: RunningServer): Promise<void> {
  console.log('\nPublished pages')
  for (const slug of ['', 'clay-and-glaze', 'trade', 'kilns', 'classes', 'studio-photos', 'guides']) {
    const html = await (await fetch(`${server.url}/${slug}`)).text()
    report(`/${slug}, gzip`, gzipSync(html).length / 1000, 'kB', { most: 14 })
    report(`/${slug}, brotli`, brotliCompressSync(html, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }).length / 1000, 'kB')
  }
}

/** What many get who come at the moment at which a page has changed: milliseconds until the last of them has it, against one alone. */
async function measureCrowd(server: RunningServer): Promise<void> {
  const api = await ownerApi(server.url)
  const changed = async (visitors: number) => {
    await api('/site', { method: 'PUT', json: { name: `Marlpit ${Math.random()}` } })
    const start = performance.now()
    await Promise.all(Array.from({ length: visitors }, async () => (await fetch(server.url)).text()))
    return performance.now() - start
  }
  const times = await inTurn(ROUNDS, { one: () => changed(1), many: () => changed(200) })
  report('the home page just after a change, for one visitor, median', median(times.one), 'ms')
  report('for 200 at once, until the last has it, median', median(times.many), 'ms')
  report('200 at once / one, in turn', medianRatio(times.many, times.one), 'times', { most: 20 })
}

function measureRendering(biggest: PageDocument): void {
  const facts = {
    id: 'x',
    handle: 'x.pdf',
    title: 'X',
    fileName: 'x.pdf',
    mediaType: 'application/pdf',
    size: 1,
    description: '',
    tags: [],
    folder: null,
    edition: 1,
    changed: '2026-11-01',
    downloads: 0,
  }
  const looks = new Map(BUILT_IN_LOOKS.map(look => [look.id, look.appearance]))
  const times = Array.from({ length: 200 }, () => {
    const start = performance.now()
    renderPage(
      { name: 'Site', address: '', menu: [], style: DEFAULT_STYLE, edges: {} },
      { slug: 'x', title: 'X', description: '', document: biggest },
      {
        file: () => facts,
        page: () => ({ slug: 'y', title: 'Y' }),
        entry: () => undefined,
        signpost: () => undefined,
        shelf: () => flat(Array.from({ length: 60 }, () => facts)),
        look: id => looks.get(id),
        shelfLook: () => undefined,
        icon: () => undefined,
        kept: KEEPS_LITTLE,
        now: Date.now(),
        speech: speechOf('en'),
      },
    )
    return performance.now() - start
  })
  report('rendering the biggest page of the demo, median', median(times), 'ms', { most: 5 })
  report('rendering it, the slowest of 200', Math.max(...times), 'ms')
}

/** Presses something; gives the milliseconds until a part of the desk is there and painted. */
async function pressed(what: Locator, part: string): Promise<number> {
  await what.waitFor()
  return what.evaluate(
    (element, selector) =>
      new Promise<number>(resolve => {
        const start = performance.now()
        ;(element as HTMLElement).click()
        const looking = setInterval(() => {
          if (!document.querySelector(selector)) return
          clearInterval(looking)
          requestAnimationFrame(() => resolve(performance.now() - start))
        }, 4)
      }),
    part,
  )
}

/** Milliseconds from a key press to the second frame after it: that one is painted with what the key changed. */
const keyPress = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>(resolve => {
        const editor = document.querySelector<HTMLElement>('.ProseMirror')!
        const start = performance.now()
        new MutationObserver((_changes, observer) => {
          observer.disconnect()
          requestAnimationFrame(() => {
            const channel = new MessageChannel()
            channel.port1.onmessage = () => resolve(performance.now() - start)
            channel.port2.postMessage(undefined)
          })
        }).observe(editor, { subtree: true, characterData: true, childList: true })
        document.execCommand('insertText', false, 'x')
      }),
  )

async function measureEditor(server: RunningServer, biggestId: string): Promise<void> {
  console.log('\nThe page board, Chromium, headless, 1280 by 800')
  const api = await ownerApi(server.url)
  const many = await api<PageDetails>('/pages', { method: 'POST', json: { title: 'Two hundred buttons' } })
  const draft: PageDocument = {
    type: 'doc',
    content: [
      { type: 'paragraph', content: [{ type: 'text', text: 'Words' }] },
      ...Array.from({ length: 200 }, (_, index) => ({
        type: 'downloadButton' as const,
        attrs: newButton({ kind: 'email' as const, address: 'shop@marlpit.example' }, `Button ${index}`),
      })),
    ],
  }
  await api(`/pages/${many.id}/draft`, { method: 'PUT', json: { title: many.title, draft, revision: many.revision } })
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM })
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const asked = new Map<Request, number>()
    page.on('request', request => void asked.set(request, performance.now()))
    await openDesk(page, server.url)
    const stands = performance.now()
    await page.waitForLoadState('networkidle')
    const sent = { script: 0, stylesheet: 0, later: 0 }
    for (const [request, at] of asked) {
      const kind = request.resourceType()
      if (kind !== 'script' && kind !== 'stylesheet') continue
      sent[at < stands ? kind : 'later'] += (await request.sizes()).responseBodySize
    }
    report('script of the desk until its list stands, as it is sent', sent.script / 1000, 'kB', { most: 420 })
    report('fetched after that, while nothing else is done', sent.later / 1000, 'kB')
    report('style of the desk on its first load, as it is sent', sent.stylesheet / 1000, 'kB', { most: 60 })
    const [opening, publishing, files, presses] = [new PacedTimes(), new PacedTimes(), new PacedTimes(), new PacedTimes()]
    const home = () => page.evaluate(() => document.querySelector<HTMLElement>('a.word-mark')!.click())
    for (let round = 0; round < ROUNDS; round++) {
      await home()
      await opening.add(() => pressed(page.locator(`a[href="/desk/pages/${biggestId}"]`).first(), '.ProseMirror > *'))
      await page.locator('.ProseMirror p').first().click()
      await page.keyboard.type('x')
      await page.getByText('Saved', { exact: true }).waitFor()
      await publishing.add(() => pressed(page.getByRole('button', { name: /^Publish/ }), '.notice'))
      await page.locator('.notice .close').click()
    }
    for (let round = 0; round < ROUNDS; round++) {
      await home()
      await files.add(() => pressed(page.locator('.file-row a.title').nth(round % 2), '#editions-head'))
    }
    report('opening the biggest page of the demo, the first time', opening.times[0]!, 'ms')
    reportPaced('opening it, median', median, opening, 300)
    reportPaced('publishing it, from the press to the word that it is live, median', median, publishing, 300)
    reportPaced('opening a file, to its editions, median', median, files, 300)
    await page.goto(`${server.url}/desk/pages/${many.id}`)
    await page.locator('.button-view').nth(199).waitFor()
    await page.locator('.ProseMirror p').first().click()
    for (let press = 0; press < 40; press++) {
      await presses.add(() => keyPress(page))
      await page.waitForTimeout(40)
    }
    reportPaced('a key press with 200 buttons on the page, to the painted frame, median', median, presses, 50)
  } finally {
    await browser.close()
  }
}

try {
  const data = join(folder, 'data')
  await buildDemo(data)
  const server = await startServer(data)
  try {
    const api = await ownerApi(server.url)
    const { items } = await api<{ items: { id: string }[] }>('/pages')
    const pages = await Promise.all(items.map(({ id }) => api<PageDetails>(`/pages/${id}`)))
    const biggest = pages.sort((a, b) => JSON.stringify(b.draft).length - JSON.stringify(a.draft).length)[0]!
    await measureWeight(server)
    await measureCrowd(server)
    measureRendering(biggest.draft)
    await measureEditor(server, biggest.id)
  } finally {
    await server.stop('SIGKILL')
  }
} finally {
  await rm(folder, { recursive: true, force: true })
}
process.exit(sayEnd())
