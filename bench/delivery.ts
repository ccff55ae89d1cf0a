import { execFile, spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { appendFile, mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { promisify } from 'node:util'
import { Upload } from 'tus-js-client'
import { buildDemo } from '../demo/build'
import { startServer, type RunningServer } from '../e2e/support/server'
import { cookieOf, upload } from '../e2e/support/upload'
import { inTurn, interleaved, load, median, medianRatio, memoryGrowth, throughput, timed } from './measure'
import { report, sayEnd } from './report'

const SIZE = 500_000_000
const run = promisify(execFile)
const folder = await mkdtemp(join(tmpdir(), 'trough-bench-'))
const big = join(folder, 'big.bin')
const [barePort, nginxPort] = [4290, 4291]
const processes: ChildProcess[] = []

async function startReferences(): Promise<void> {
  processes.push(spawn('node', ['--import', 'tsx', 'bench/bareServer.ts', big, String(barePort)], { stdio: 'inherit' }))
  const config = join(folder, 'nginx.conf')
  await mkdir(join(folder, 'logs'), { recursive: true })
  await writeFile(
    config,
    `daemon off; pid ${folder}/nginx.pid; error_log ${folder}/logs/error.log; user root;
events { worker_connections 512; }
http { sendfile on; tcp_nopush on; access_log off; server { listen 127.0.0.1:${nginxPort}; root ${folder}; } }`,
  )
  processes.push(spawn('nginx', ['-c', config, '-p', folder], { stdio: 'inherit' }))
  await wait(2000)
}

function tusUpload(url: string, cookie: string): Promise<void> {
  return new Promise((resolve, reject) => {
    new Upload(createReadStream(big, { highWaterMark: 1024 * 1024 }), {
      endpoint: `${url}/api/uploads`,
      uploadSize: SIZE,
      chunkSize: 64 * 1024 * 1024,
      metadata: { filename: 'big.bin' },
      headers: { cookie },
      onError: reject,
      onSuccess: () => resolve(),
    }).start()
  })
}

async function measureUpload(server: RunningServer, cookie: string): Promise<void> {
  console.log('\nUpload of 500 MB by tus-js-client, against sha256sum and cp of the same file')
  const reference = await timed(async () => {
    await run('sha256sum', [big])
    await run('cp', [big, join(folder, 'copy.bin')])
    await run('sync', [join(folder, 'copy.bin')])
  })
  let seconds = 0
  const growth = await memoryGrowth(server.pid, async () => {
    seconds = await timed(() => tusUpload(server.url, cookie))
  })
  report('sha256sum and cp', reference, 's')
  report('upload', seconds, 's')
  report('upload / (sha256sum and cp)', seconds / reference, 'times', { most: 4 })
  report("growth of the server's memory", growth / 1e6, 'MB', { most: 100 })
}

async function measureStream(server: RunningServer): Promise<void> {
  console.log('\nOne stream of a 500 MB file, by curl (medians of 7 rounds in turn)')
  const speed = await interleaved(7, {
    ours: () => throughput(`${server.url}/files/big.bin`),
    bare: () => throughput(`http://127.0.0.1:${barePort}/file`),
    nginx: () => throughput(`http://127.0.0.1:${nginxPort}/big.bin`),
  })
  report('Trough', speed.ours / 1e6, 'MB/s')
  report('bare Node server, 1 MiB chunks', speed.bare / 1e6, 'MB/s')
  report('nginx, sendfile', speed.nginx / 1e6, 'MB/s')
  report('Trough / bare Node', speed.ours / speed.bare, '', { least: 0.95 })
  report('Trough / nginx', speed.ours / speed.nginx, '')
}

type Asked = 'file' | 'page' | 'bare' | 'unchanged' | 'bareUnchanged'

async function measureRequests(server: RunningServer, smallUrl: string): Promise<void> {
  console.log('\nRequests a second, by wrk with 200 connections, counting on (medians of 25 rounds of a second in turn)')
  const bare = `http://127.0.0.1:${barePort}/`
  const etag = (await fetch(smallUrl, { method: 'HEAD' })).headers.get('etag')!
  const asked: Record<Asked, [url: string, headers?: Record<string, string>]> = {
    file: [smallUrl],
    page: [`${server.url}/`],
    bare: [bare],
    unchanged: [smallUrl, { 'If-None-Match': etag }],
    bareUnchanged: [bare, { 'If-None-Match': etag }],
  }
  // Until the code that is measured has been compiled for speed.
  for (const [url, headers] of Object.values(asked)) await load(url, 5, 200, headers)
  const p99: Record<string, number[]> = {}
  const rate = await inTurn(
    25,
    Object.fromEntries(
      Object.entries(asked).map(([name, [url, headers]]) => [
        name,
        async () => {
          const result = await load(url, 1, 200, headers)
          ;(p99[name] ??= []).push(result.p99)
          return result.rate
        },
      ]),
    ) as Record<Asked, () => Promise<number>>,
  )
  for (const [name, words] of [
    ['file', 'a 20 kB file'],
    ['page', 'a published page'],
    ['bare', 'bare Node server, 20 kB from memory'],
    ['unchanged', 'the file, unchanged (304)'],
    ['bareUnchanged', 'bare Node server, 304'],
  ] as const) {
    report(words, median(rate[name]), `/s, p99 ${median(p99[name]!).toFixed(1)} ms`)
  }
  report('file / bare Node', medianRatio(rate.file, rate.bare), '', { least: 0.5 })
  report('304 / bare Node', medianRatio(rate.unchanged, rate.bareUnchanged), '', { least: 0.6 })
  report('page / bare Node', medianRatio(rate.page, rate.bare), '', { least: 0.4 })
}

try {
  console.log('Making a 500 MB file and the demo…')
  const chunk = randomBytes(10_000_000)
  for (let written = 0; written < SIZE; written += chunk.length) {
    chunk.writeUInt32LE(written, 0)
    await appendFile(big, chunk)
  }
  const data = join(folder, 'data')
  await buildDemo(data)
  const server = await startServer(data)
  processes.push({ kill: () => process.kill(server.pid, 'SIGKILL') } as ChildProcess)
  const cookie = await cookieOf(server.url)
  await upload(server.url, 'small.pdf', Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(19_991)]), cookie)
  await startReferences()
  await measureUpload(server, cookie)
  await measureStream(server)
  await measureRequests(server, `${server.url}/files/small.pdf`)
} finally {
  // Killed outright, nginx would leave its workers behind, with the port.
  for (const child of processes) child.kill(child.spawnfile === 'nginx' ? 'SIGTERM' : 'SIGKILL')
  await rm(folder, { recursive: true, force: true })
}
process.exit(sayEnd())
