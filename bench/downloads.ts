import { execFile } from 'node:child_process'
import { mkdtemp, rm } from 'node:fs/promises'
import { randomBytes } from 'node:crypto'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { sql } from 'drizzle-orm'
import { buildDemo } from '../demo/build'
import { startServer } from '../e2e/support/server'
import { ownerApi } from '../e2e/support/owner'
import { cookieOf, upload } from '../e2e/support/upload'
import { openDatabase } from '../server/db/connection'
import { inTurn, load, median, medianRatio, p95 } from './measure'
import { inPace } from './pace'
import { report, reportPaced, sayEnd } from './report'

const run = promisify(execFile)

/** The board of downloads over a million of them, the log, a table of all; and what counting costs delivery. */

const MANY = Number(process.env.TROUGH_BENCH_DOWNLOADS ?? 1_000_000)
const FILES = 5000
const ROUNDS = 40
const DIMENSIONS = ['file', 'placement', 'page', 'referrer', 'campaign', 'country', 'device', 'browser', 'system', 'language']

/** Straight into the table, since a million visitors would take days: two years, few files taken often and many now and then. */
async function fill(data: string): Promise<void> {
  const { db, close } = await openDatabase(join(data, 'db'))
  await db.execute(sql`delete from downloads`)
  for (let from = 0; from < MANY; from += 100_000)
    await db.execute(sql`insert into downloads (file_id, edition, placement, at, bytes, page, campaign, referrer, country, device, browser, system, language)
      select 'file' || floor(${FILES}::int * power(random(), 3)), 1 + n % 3, 'place' || n % 400,
        now() - ((${MANY}::int - n) * interval '1 second' * (730.0 * 86400 / ${MANY}::int)), 20000 + n % 90000, 'page' || n % 60,
        case when n % 9 = 0 then 'newsletter-' || n % 24 else '' end, case when n % 3 = 0 then 'site-' || n % 700 || '.example' else '' end,
        (array['GB','GB','GB','GB','IE','DE','FR','US','NL',''])[1 + floor(random() * 10)::int],
        (array['phone','computer','tablet'])[1 + n % 3], (array['Chrome','Safari','Firefox'])[1 + n % 3], (array['Android','iOS','Windows','Linux'])[1 + n % 4],
        (array['en','de','fr','nl'])[1 + n % 4]
      from generate_series(${from + 1}::int, ${Math.min(MANY, from + 100_000)}::int) n`)
  await db.execute(sql`analyze downloads`)
  await close()
}

const folder = await mkdtemp(join(tmpdir(), 'trough-bench-'))
const data = join(folder, 'data')
await buildDemo(data)
await fill(data)
const server = await startServer(data)
try {
  const cookie = await cookieOf(server.url)
  const once = async (path: string): Promise<number> => {
    const start = performance.now()
    const answer = await fetch(`${server.url}/api${path}`, { headers: { cookie } })
    await answer.arrayBuffer()
    if (!answer.ok) throw new Error(`${answer.status} for ${path}`)
    return performance.now() - start
  }
  console.log(`\n${MANY.toLocaleString('en')} downloads in two years, by HTTP`)
  report('the first question after a start', await once('/downloads/board'), 'ms')
  const list = (round: number) => DIMENSIONS[round % DIMENSIONS.length]!
  const QUESTIONS: [what: string, most: number, pathOf: (round: number) => string][] = [
    ['all of it, by each list', 300, round => `board?span=all&stack=file&list=${list(round)}`],
    ['30 days, by each list', 300, round => `board?list=${list(round)}`],
    ['narrowed to a country', 200, round => `board?span=all&country=GB&list=${list(round)}`],
    ['narrowed to a file and a device', 200, round => `board?span=year&file=file${round}&device=phone`],
    ['the log', 50, () => 'log?span=all'],
    ['the log, far down', 50, round => `log?span=all&offset=${round * Math.floor(MANY / 41)}`],
  ]
  for (const [what, most, pathOf] of QUESTIONS)
    reportPaced(`${what}, p95`, p95, await inPace(ROUNDS, round => once(`/downloads/${pathOf(round)}`)), most)
  const dayBefore = (days: number) => new Date(Date.now() - days * 24 * 60 * 60 * 1000).toISOString().slice(0, 10)
  /** Milliseconds for each thousand rows of a table of 70 days; taken by another program, so that what reads them is not measured. */
  async function table(round: number): Promise<number> {
    const span = new URLSearchParams({ span: 'days', from: dayBefore(70 * round + 70), to: dayBefore(70 * round + 1) })
    const start = performance.now()
    const { stdout } = await run('sh', [
      '-c',
      'curl -sS -H "Cookie: $1" "$2" | wc -l',
      'table',
      cookie,
      `${server.url}/api/downloads/export?${span}`,
    ])
    return (performance.now() - start) / (Number(stdout) / 1000)
  }
  reportPaced('a thousand rows of the table, median', median, await inPace(10, table), 20)

  console.log('\nWhat counting costs, 20 kB over 200 connections')
  const { handle } = await (
    await ownerApi(server.url)
  )<{ handle: string }>(`/files/${await upload(server.url, 'bench.bin', randomBytes(20_000))}`)
  const rate = (more: Record<string, string>) => async () => (await load(`${server.url}/files/${handle}`, 1, 200, more)).rate
  // What browsers fetch ahead is delivered in the same way, and never handed to whoever counts.
  const ways = { counted: rate({}), uncounted: rate({ 'Sec-Purpose': 'prefetch' }) }
  // Both are slower until they have been compiled, the longer one for longer.
  await inTurn(10, ways)
  const rounds = await inTurn(15, ways)
  report('counted / not counted', medianRatio(rounds.counted, rounds.uncounted), '', { least: 0.95 })
} finally {
  await server.remove()
  await rm(folder, { recursive: true, force: true })
}
process.exitCode = sayEnd()
