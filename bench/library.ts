import { execFile } from 'node:child_process'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { promisify } from 'node:util'
import { chromium, type Page } from '@playwright/test'
import { makePdf } from '../demo/pdf'
import { seeded } from '../demo/random'
import { kilnManual } from '../demo/texts'
import { openDesk } from '../e2e/support/owner'
import { startServer, type RunningServer } from '../e2e/support/server'
import { cookieOf, upload } from '../e2e/support/upload'
import { FILES, FOLDERS, makeBigLibrary, rareWord, wordOfRank } from './bigLibrary'
import { interleaved, inTurn, median, medianRatio, p95, pacedP99, residentMemory, timed } from './measure'
import { inPace } from './pace'
import { report, reportPaced, sayEnd } from './report'

const run = promisify(execFile)
const ROUNDS = 100
const CHROMIUM = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]
const folder = await mkdtemp(join(tmpdir(), 'trough-bench-library-'))
const random = seeded(17)

/** Milliseconds of each of many requests, one after another. */
const latencies = (server: RunningServer, cookie: string, queryOf: (round: number) => string) =>
  inPace(ROUNDS, async round => {
    const query = queryOf(round)
    const start = performance.now()
    const response = await fetch(`${server.url}/api/files?${query}`, { headers: { cookie } })
    await response.arrayBuffer()
    if (!response.ok) throw new Error(`${response.status} for ${query}`)
    return performance.now() - start
  })

async function measureServer(server: RunningServer, cookie: string): Promise<void> {
  console.log(`\nServer, ${FILES.toLocaleString()} files in ${FOLDERS} folders: p95 of ${ROUNDS} requests each, by HTTP`)
  const some = (below: number) => Math.floor(random() * below)
  const parts = ['winter', 'gla', 'kiln 4', 'manual', '47', 'red chart', 'stock', 'trade price']
  const rank = () => Math.floor(4000 ** random())
  const kinds = ['document', 'picture', 'sheet']
  const sorts = ['title', '-size', 'added', '-downloads']
  const QUERIES: [what: string, most: number, queryOf: (round: number) => string][] = [
    ['opening a folder', 20, () => `folder=folder${1 + some(FOLDERS)}`],
    ['filter and sort', 50, round => `type=${kinds[round % 3]}&tag=safety&least=${some(1_000_000)}&sort=${sorts[round % 4]}`],
    ['part of a name', 50, round => `q=${encodeURIComponent(parts[round % parts.length]!)}`],
    ['words inside: ranks 1 to 4000, log-uniform', 100, () => `q=${wordOfRank(rank())}`],
    ['words inside: two of them', 100, () => `q=${wordOfRank(10 + (rank() % 3000))}+${wordOfRank(rank())}`],
    ['words inside: in one document', 100, () => `q=${rareWord(some(FILES))}`],
  ]
  for (const [what, most, queryOf] of QUERIES)
    reportPaced(what, p95, await latencies(server, cookie, round => `${queryOf(round)}&limit=50`), most)
}

/** Milliseconds from a key press until the last change it makes to what was found is painted. */
async function keyToPaint(page: Page, key: string): Promise<number> {
  await page.evaluate(() => {
    const list = document.querySelector('[role="listbox"][aria-label="Found"]')!
    const state = window as unknown as { pressed: number; painted: number }
    state.painted = NaN
    addEventListener('keydown', () => (state.pressed = performance.now()), { capture: true, once: true })
    new MutationObserver(() => requestAnimationFrame(() => setTimeout(() => (state.painted = performance.now())))).observe(list, {
      childList: true,
      subtree: true,
      characterData: true,
    })
  })
  await page.keyboard.press(key)
  await page.waitForTimeout(500)
  return page.evaluate(() => {
    const { painted, pressed } = window as unknown as { pressed: number; painted: number }
    return painted - pressed
  })
}

async function measureBrowser(server: RunningServer): Promise<void> {
  console.log('\nChromium, headless, 1280 by 800')
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: CHROMIUM })
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await openDesk(page, server.url)
    const times: number[] = []
    for (const words of ['winter chart', 'glaze 12', 'kiln man', 'wordless', wordOfRank(300), 'price st']) {
      await page.keyboard.press('Control+k')
      await page.waitForTimeout(400)
      for (const letter of words) times.push(await keyToPaint(page, letter === ' ' ? 'Space' : letter))
      await page.keyboard.press('Escape')
    }
    report('key press to painted results, median', median(times.filter(Number.isFinite)), 'ms', { most: 150 })

    await page.goto(`${server.url}/desk?folder=top&least=0`)
    await page.getByText(`${FILES.toLocaleString('en')} files`).waitFor()
    const session = await page.context().newCDPSession(page)
    await session.send('HeapProfiler.enable')
    // Rows that went are let go of in several turns of the collector.
    const memory = async () => {
      for (let turn = 0; turn < 5; turn++) {
        await page.waitForTimeout(500)
        await session.send('HeapProfiler.collectGarbage')
      }
      return (await session.send('Runtime.getHeapUsage')).usedSize
    }
    const scrolled = (pixels: number) =>
      page.evaluate(async distance => {
        const list = document.querySelector('.rows')!
        let [frames, blank] = [0, 0]
        const end = list.scrollTop + distance
        while (list.scrollTop < Math.min(end, list.scrollHeight - list.clientHeight - 1)) {
          // 100 pixels a frame: as fast as a wheel is turned.
          list.scrollTop += 100
          await new Promise(requestAnimationFrame)
          const box = list.getBoundingClientRect()
          const seen = [...list.querySelectorAll('.line')].filter(
            line => line.getBoundingClientRect().bottom > box.top + 30 && line.getBoundingClientRect().top < box.bottom,
          )
          frames++
          if (seen.some(line => line.querySelector('.unread')) || seen.length < box.height / 32 - 3) blank++
        }
        return { frames, blank, rows: list.querySelectorAll('.line').length }
      }, pixels)
    await scrolled(20_000)
    const before = await memory()
    const { frames, blank, rows } = await scrolled(80_000)
    report('frames with a blank row, of ' + frames, blank, '', { most: 0 })
    report('rows in the document at once', rows, '')
    report("growth of the page's memory over those 2,500 rows", ((await memory()) - before) / 1e6, 'MB', { most: 12 })
  } finally {
    await browser.close()
  }
}

async function measureReading(server: RunningServer, cookie: string): Promise<void> {
  console.log('\nText of PDFs, against pdftotext on the same files, and what visitors notice of it')
  const manuals = await Promise.all(
    Array.from({ length: 24 }, async (_, index) => {
      const { sections, ...rest } = kilnManual(`B${index}`)
      return makePdf({ ...rest, sections: [...sections, ...sections, ...sections, ...sections] }, new Date('2026-11-02'))
    }),
  )
  const pages = manuals.reduce((sum, bytes) => sum + Number(/\/Type \/Pages\s*\/Count (\d+)/.exec(bytes.toString('latin1'))![1]), 0)
  await Promise.all(manuals.map((bytes, index) => writeFile(join(folder, `${index}.pdf`), bytes)))

  await upload(server.url, 'small.pdf', Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(19_991, 'x')]), cookie)
  const ids: string[] = []
  for (const [index, bytes] of manuals.entries()) ids.push(await upload(server.url, `manual-${index}.pdf`, bytes, cookie))
  const finished = async () => {
    while ((await (await fetch(`${server.url}/api/reading`, { headers: { cookie } })).json()).waiting) await wait(20)
  }
  const again = () =>
    fetch(`${server.url}/api/reading/again`, {
      method: 'POST',
      headers: { cookie, 'Content-Type': 'application/json' },
      body: JSON.stringify({ files: ids }),
    })
  await finished()
  const read = await inTurn(5, {
    theirs: () =>
      timed(async () => {
        for (const index of manuals.keys()) await run('pdftotext', [join(folder, `${index}.pdf`), join(folder, `${index}.txt`)])
      }),
    // The words are read and written down, and the first page is drawn.
    ours: () => timed(() => again().then(finished)),
  })
  report('pdftotext', pages / median(read.theirs), 'pages/s')
  report('Trough, with first pages drawn and the index written', pages / median(read.ours), 'pages/s')
  report('Trough / pdftotext, in turn', medianRatio(read.theirs, read.ours), '', { least: 0.4 })

  const small = `${server.url}/files/small.pdf`
  await pacedP99(small, 100, 1)
  const { idle, busy } = await interleaved(5, {
    idle: async () => {
      // What reading left to be cleared up is not idle yet.
      await finished()
      await wait(1000)
      return pacedP99(small, 100, 5)
    },
    busy: async () => {
      await again()
      return pacedP99(small, 100, 5)
    },
  })
  report('p99 of a 20 kB delivery at 100/s, idle, median of 5', idle, 'ms')
  report('p99 while reading', busy, 'ms')
  report('while reading / idle', busy / idle, 'times', { most: 2 })
  await finished()
}

try {
  console.log('Making a large library…')
  const data = join(folder, 'data')
  await makeBigLibrary(data)
  const server = await startServer(data)
  try {
    const cookie = await cookieOf(server.url)
    const start = performance.now()
    await (await fetch(`${server.url}/api/files?limit=1`, { headers: { cookie } })).arrayBuffer()
    report('from the start of the server to the first list', performance.now() - start, 'ms')
    await measureServer(server, cookie)
    report('memory of the server', (await residentMemory(server.pid)) / 1e6, 'MB')
    await measureBrowser(server)
    await measureReading(server, cookie)
  } finally {
    await server.stop('SIGKILL')
  }
} finally {
  await rm(folder, { recursive: true, force: true })
}
process.exit(sayEnd())
