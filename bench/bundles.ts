import { execFile, spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { promisify } from 'node:util'
import { OWNER } from '../demo/owner'
import { startServer, type RunningServer } from '../e2e/support/server'
import { cookieOf } from '../e2e/support/upload'
import { startNginx } from '../server/testing/nginx'
import { openTrough } from '../server/trough'
import { BROWSER, inTurn, interleaved, median, medianRatio, memoryGrowth, pacedP99, throughput, timed } from './measure'
import { putRandom } from './putRandom'
import { report, sayEnd } from './report'

const [FILES, FILE_SIZE, QUICK] = [500, 2_000_000, 200_000]
const TOTAL = FILES * FILE_SIZE
const [zipPort, reportPort] = [4292, 4294]
const run = promisify(execFile)
const folder = await mkdtemp(join(tmpdir(), 'trough-bench-bundles-'))
const data = join(folder, 'data')
const processes: ChildProcess[] = []

/** A library with 500 files, one file as large as all of them together, and a bundle of the 500. */
async function makeLibrary(): Promise<{ paths: string[]; big: string }> {
  const trough = await openTrough({ data })
  try {
    await trough.account.create(OWNER.email, OWNER.password)
    await trough.site.set({ name: 'Bundles', address: '' })
    const files = []
    for (let index = 0; index < FILES; index++) files.push(await putRandom(trough, `${index}.bin`, FILE_SIZE))
    const big = await putRandom(trough, 'whole.bin', TOTAL)
    await putRandom(trough, 'quick.bin', QUICK)
    await trough.bundles.create({ title: 'Bundle', folder: null, files: files.map(file => file.id), folders: [] })
    const pathOf = (hash: string) => join(data, 'store/sha256', hash.slice(0, 2), hash.slice(2, 4), hash)
    return { paths: files.map(file => pathOf(file.sha256)), big: pathOf(big.sha256) }
  } finally {
    await trough.close()
  }
}

/** Milliseconds until the first byte, and until the last, of a part of a file; medians. */
async function partTimes(url: string, range: string | undefined, rounds: number): Promise<{ first: number; last: number }> {
  const [first, last]: [number[], number[]] = [[], []]
  for (let round = 0; round < rounds; round++) {
    const { stdout } = await run('curl', [
      '-sS',
      '-o',
      '/dev/null',
      '-A',
      BROWSER,
      '-w',
      '%{time_starttransfer} %{time_total}',
      ...(range ? ['-r', range] : []),
      url,
    ])
    const [start, total] = stdout.split(' ').map(Number) as [number, number]
    first.push(start * 1000)
    last.push(total * 1000)
  }
  return { first: median(first), last: median(last) }
}

async function measureBundle(server: RunningServer): Promise<void> {
  console.log('\nA bundle of 500 files, 1 GB, by curl (medians of 15 rounds in turn, of 3 for the libraries)')
  const bundle = `${server.url}/files/bundle.zip`
  const zips = `http://127.0.0.1:${zipPort}`
  let speed: Record<'bundle' | 'file', number[]> = { bundle: [], file: [] }
  const growth = await memoryGrowth(server.pid, async () => {
    speed = await inTurn(15, { bundle: () => throughput(bundle), file: () => throughput(`${server.url}/files/whole.bin`) })
  })
  const libraries = await interleaved(3, { archiver: () => throughput(`${zips}/archiver`), yazl: () => throughput(`${zips}/yazl`) })
  const ours = median(speed.bundle)
  for (const [words, bytes] of [
    ['the bundle', ours],
    ['one file of 1 GB', median(speed.file)],
    ['archiver, nothing packed', libraries.archiver],
    ['yazl, nothing packed', libraries.yazl],
  ] as const)
    report(words, bytes / 1e6, 'MB/s')
  report('bundle / file', medianRatio(speed.bundle, speed.file), '', { least: 0.8 })
  report('bundle / the better of archiver and yazl', ours / Math.max(libraries.archiver, libraries.yazl), 'times', { least: 4 })
  report("growth of the server's memory", growth / 1e6, 'MB', { most: 64 })
  report('first byte', (await partTimes(bundle, '0-999999', 15)).first, 'ms', { most: 20 })
  const size = Number((await fetch(bundle, { method: 'HEAD' })).headers.get('content-length'))
  const [start, end] = [await partTimes(bundle, '0-999999', 25), await partTimes(bundle, `${size - 3_000_000}-${size - 2_000_001}`, 25)]
  report('a megabyte near its end / at its start', end.last / start.last, 'times', { most: 1.25 })
}

async function measureFront(big: string): Promise<void> {
  console.log('\nBehind nginx, which sends stored bytes itself (medians of 15 rounds in turn)')
  process.env.TROUGH_FRONT_PREFIX = '/_trough-store/'
  process.env.TROUGH_FRONT_LOG_PORT = String(reportPort)
  const server = await startServer(data)
  const nginx = await startNginx({ trough: server.port, report: reportPort, store: join(data, 'store'), plain: big })
  try {
    const speed = await inTurn(15, {
      ours: () => throughput(`${nginx.url}/files/whole.bin`),
      nginx: () => throughput(`${nginx.url}/plain`),
    })
    report('Trough behind nginx', median(speed.ours) / 1e6, 'MB/s')
    report('nginx alone', median(speed.nginx) / 1e6, 'MB/s')
    report('Trough behind nginx / nginx alone', medianRatio(speed.ours, speed.nginx), '', { least: 0.9 })
  } finally {
    await nginx.stop()
    await server.stop('SIGKILL')
  }
}

async function measureSlow(): Promise<void> {
  console.log('\n500 clients at once that take 1 kB/s each, and a quick one (medians of 5 spells of 10 s)')
  process.env.TROUGH_PROXIES = '127.0.0.1'
  const server = await startServer(data)
  try {
    const small = `${server.url}/files/quick.bin`
    await pacedP99(small, 20, 2)
    const spells = async () => median((await inTurn(5, { p99: () => pacedP99(small, 20, 10) })).p99)
    const idle = await spells()
    let busy = 0
    const growth = await memoryGrowth(server.pid, async () => {
      const clients = spawn('node', ['--import', 'tsx', 'bench/slowClients.ts', `${server.url}/files/whole.bin`, '500'], {
        stdio: ['ignore', 'pipe', 'inherit'],
      })
      processes.push(clients)
      await once(clients.stdout!, 'data')
      // The system takes some megabytes for each of them at once; measured is what comes after.
      await wait(20_000)
      busy = await spells()
      clients.kill('SIGKILL')
    })
    report('p99 of a 200 kB file at 20/s, alone', idle, 'ms')
    report('p99 among the slow', busy, 'ms')
    report('among the slow / alone', busy / idle, 'times', { most: 2 })
    report("growth of the server's memory", growth / 1e6, 'MB', { most: 150 })
  } finally {
    await server.stop('SIGKILL')
    delete process.env.TROUGH_PROXIES
  }
}

async function measureVerify(server: RunningServer, cookie: string): Promise<void> {
  console.log('\nVerifying 2 GB in 502 files, against sha256sum of the same files')
  const verify = async () => {
    await fetch(`${server.url}/api/verify`, { method: 'POST', headers: { cookie, 'Content-Type': 'application/json' }, body: '{}' })
    while ((await (await fetch(`${server.url}/api/verify`, { headers: { cookie } })).json()).state === 'running') await wait(10)
  }
  const seconds = await interleaved(3, {
    ours: () => timed(verify),
    theirs: () => timed(() => run('sh', ['-c', `find ${join(data, 'store')} -type f -print0 | xargs -0 sha256sum`], { maxBuffer: 1e8 })),
  })
  report('sha256sum', (2 * TOTAL) / seconds.theirs / 1e6, 'MB/s')
  report('verify', (2 * TOTAL) / seconds.ours / 1e6, 'MB/s')
  report('verify / sha256sum', seconds.theirs / seconds.ours, '', { least: 0.7 })
}

try {
  console.log('Making 500 files of 2 MB, and one of 1 GB…')
  const { paths, big } = await makeLibrary()
  processes.push(spawn('node', ['--import', 'tsx', 'bench/zipServer.ts', String(zipPort), ...paths], { stdio: 'inherit' }))
  const server = await startServer(data)
  try {
    const cookie = await cookieOf(server.url)
    await measureBundle(server)
    await measureVerify(server, cookie)
  } finally {
    await server.stop('SIGKILL')
  }
  await measureSlow()
  await measureFront(big)
} finally {
  for (const child of processes) child.kill('SIGKILL')
  await rm(folder, { recursive: true, force: true })
}
process.exit(sayEnd())
