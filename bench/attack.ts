import { mkdtemp, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { strToU8, zipSync } from 'fflate'
import { buildDemo } from '../demo/build'
import { OWNER } from '../demo/owner'
import { ownerApi } from '../e2e/support/owner'
import { startServer } from '../e2e/support/server'
import { upload } from '../e2e/support/upload'
import { putRandom } from './putRandom'
import { inTurn, load, median, medianRatio, pacedP99 } from './measure'
import { report, sayEnd } from './report'
import { openTrough } from '../server/trough'

/** How quickly a visitor gets 20 kB while others do what would stop a site that lets them; against the same without them, in turn. */
const [PACE, SECONDS, ROUNDS] = [100, 3, 5]
/** Two answers of a tenth of a millisecond are told apart by many rounds of a second each. */
const NOTHING_ROUNDS = 15
const OLD_ADDRESSES = 300_000
const IN_BUNDLE = 3000
/** A part of the names of those that are wanted; all without one. */
const only = process.argv[2] ?? ''

const folder = await mkdtemp(join(tmpdir(), 'trough-bench-attack-'))
const data = join(folder, 'data')
await buildDemo(data)
const trough = await openTrough({ data })
const small = await putRandom(trough, 'small.bin', 20_000)
const many = (await trough.library.folders.create({ name: 'Many', parent: null })).id
for (let count = 0; count < IN_BUNDLE; count++) await putRandom(trough, `part-${count}.bin`, 500, many)
await trough.close()
/** Tag files of 190 MB each in a zip of a few. Made before there is a server: meanwhile nobody answers its connections. */
function makeBombs(): Buffer {
  const zeros = new Uint8Array(190_000_000)
  const tags = Object.fromEntries(Array.from({ length: 24 }, (_, index) => [`bag/tag-${index}.txt`, zeros]))
  return Buffer.from(zipSync({ 'bag/bagit.txt': strToU8('BagIt-Version: 1.0\n'), ...tags }, { level: 1 }))
}
const BOMBS = 'a bag of bombs'
const bombBytes = BOMBS.includes(only) ? makeBombs() : Buffer.alloc(0)
const server = await startServer(data)
const api = await ownerApi(server.url)
while ((await api<{ waiting: number }>('/reading')).waiting) await wait(300)

const address = `${server.url}/files/${small.handle}`
const quietly = (asked: Promise<Response>) => asked.then(answer => answer.arrayBuffer()).catch(() => undefined)
const nested = '['.repeat(3_900_000) + ']'.repeat(3_900_000)
const post = (path: string, body: string) =>
  quietly(fetch(`${server.url}/api${path}`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body }))

/** Does something again and again until it is told to end. */
function again(work: (count: number) => Promise<unknown>, rest = 0, beside = 1): () => Promise<void> {
  let going = true
  const lanes = Array.from({ length: beside }, async () => {
    for (let count = 0; going; count++) {
      await work(count)
      await wait(rest)
    }
  })
  return async () => {
    going = false
    await Promise.all(lanes)
  }
}

const manuals = (await api<{ items: { id: string }[] }>('/files?q=manual')).items
const bomb = await upload(server.url, 'bomb.zip', bombBytes)
let oldAddressesAreIn = false
async function bringOldAddresses(): Promise<void> {
  if (oldAddressesAreIn) return
  for (let start = 0; start < OLD_ADDRESSES; start += 50_000) {
    await api('/old-addresses', {
      method: 'POST',
      json: { text: Array.from({ length: 50_000 }, (_, index) => `/old/${start + index}/page.html`).join('\n') },
    })
  }
  oldAddressesAreIn = true
}

/**
 * How many pages are answered in the time of one answer that there is nothing; one is asked for at a time, since those who ask for many
 * wait for each other.
 */
async function costOfNothing(): Promise<number> {
  const { page, nothing } = await inTurn(NOTHING_ROUNDS, {
    page: async () => (await load(server.url, 1, 1)).rate,
    nothing: async () => (await load(`${server.url}/nowhere`, 1, 1, {}, { missing: true })).rate,
  })
  return medianRatio(page, nothing)
}
let backups = 0

/** The whole data folder, copied by the command's way. */
async function backUp(): Promise<void> {
  const { control } = JSON.parse(await readFile(join(data, 'secrets.json'), 'utf8')) as { control: string }
  const headers = { 'Authorization': `Bearer ${control}`, 'Content-Type': 'application/json' }
  await quietly(
    fetch(`${server.url}/api/backup`, {
      method: 'POST',
      headers,
      body: JSON.stringify({ folder: join(folder, `backup-${backups++ % 2}`) }),
    }),
  )
}

const ATTACKS: Record<string, () => Promise<() => Promise<unknown>>> = {
  'nested JSON, one a second': async () => again(() => post('/session', nested), 1000),
  '24 sign-ins at once': async () =>
    again(() => Promise.all(Array.from({ length: 24 }, () => post('/session', JSON.stringify({ ...OWNER, password: 'wrong' })))), 200),
  'what is nowhere, over 8 connections': async () => again(count => quietly(fetch(`${server.url}/nowhere-${count}`)), 0, 8),
  'the same with 300,000 old addresses': async () => {
    await bringOldAddresses()
    return again(count => quietly(fetch(`${server.url}/nowhere-${count}`)), 0, 8)
  },
  // As long as a request may be: whoever reads them for what stands behind an address reads them once.
  'addresses of 15,000 dots and a letter': async () => again(() => quietly(fetch(`${server.url}/${'.'.repeat(15_000)}a`)), 100),
  [BOMBS]: async () => again(() => api(`/files/${bomb}/bag`, { method: 'POST', json: { folder: null } }).catch(() => undefined), 500),
  'the walk': async () => again(() => api('/walk', { method: 'POST' })),
  'a backup': async () => again(() => backUp()),
  'editions compared': async () => again(() => api(`/files/${manuals[0]!.id}/editions/1/comparison`).catch(() => undefined)),
  'a bundle of 3,000 files composed': async () =>
    again(count => api('/bundles', { method: 'POST', json: { title: `All ${count}`, files: [], folders: [many] } }), 300),
}

console.log(`\n99th percentile of a download of 20 kB at ${PACE} a second while something goes on, against the same while nothing does`)
try {
  await pacedP99(address, PACE, 3)
  for (const [name, begin] of Object.entries(ATTACKS).filter(([name]) => name.includes(only))) {
    const [idle, under, ratios]: [number[], number[], number[]] = [[], [], []]
    for (let round = 0; round < ROUNDS; round++) {
      idle.push(await pacedP99(address, PACE, SECONDS))
      const end = await begin()
      under.push(await pacedP99(address, PACE, SECONDS))
      await end()
      await wait(300)
      ratios.push(under.at(-1)! / idle.at(-1)!)
    }
    report(`${name}: idle`, median(idle), 'ms')
    report(`${name}: meanwhile`, median(under), 'ms')
    report(`${name}: ratio`, median(ratios), 'times', { most: 2 })
  }
  if (oldAddressesAreIn) report('what is nowhere against a page, with 300,000 old addresses', await costOfNothing(), 'times', { most: 2 })
} finally {
  await server.remove()
  await rm(folder, { recursive: true, force: true })
}
sayEnd()
