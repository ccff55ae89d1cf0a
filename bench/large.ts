import { execFile } from 'node:child_process'
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { mkdtemp, open, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { fileFilterSchema } from '../core/files/query'
import { newId } from '../core/id'
import { OWNER } from '../demo/owner'
import { startServer, type RunningServer } from '../e2e/support/server'
import { openTrough } from '../server/trough'
import { memoryGrowth, timed } from './measure'
import { putRandom } from './putRandom'
import { report, sayEnd } from './report'

/** Bundles too large for every test run: one over 4 GiB, and one of a folder of 10,000 files. */
const [BIG, TIMES, MANY] = [1_100_000_000, 4, 10_000]
const run = promisify(execFile)
const folder = await mkdtemp(join(tmpdir(), 'trough-bench-large-'))
const data = join(folder, 'data')

async function makeLibrary(): Promise<{ sha256: string }> {
  const trough = await openTrough({ data })
  try {
    await trough.account.create(OWNER.email, OWNER.password)
    const big = await putRandom(trough, 'big.bin', BIG)
    const bundle = await trough.bundles.create({ title: 'Over four', folder: null, files: [], folders: [] })
    const entries = Array.from({ length: TIMES }, (_, index) => ({
      id: newId(),
      kind: 'file' as const,
      file: big.id,
      within: '',
      name: `part ${index}.bin`,
    }))
    await trough.bundles.change(bundle.id, { revision: 1, entries })

    const place = (await trough.library.folders.create({ name: 'Ten thousand', parent: null })).id
    await putRandom(trough, 'small.bin', 1000, place)
    for (let count = 1; count < MANY; count *= 2) {
      const there = await trough.library.ids(fileFilterSchema.parse({ folder: place }))
      await trough.library.copy({ files: there.slice(0, MANY - count), folders: [] }, place)
    }
    await trough.bundles.create({ title: 'Ten thousand', folder: null, files: [], folders: [place] })
    return big
  } finally {
    await trough.close()
  }
}

async function sha256Of(path: string): Promise<string> {
  const hash = createHash('sha256')
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer)
  return hash.digest('hex')
}

async function checkOverFour(server: RunningServer, sha256: string): Promise<void> {
  console.log(`\nA bundle of ${TIMES} files of ${BIG / 1e6} MB`)
  const url = `${server.url}/files/over-four.zip`
  const path = join(folder, 'over-four.zip')
  // What a process takes once, for compiled code and buffers that are used again, is no matter of the size of the zip.
  const once = await memoryGrowth(server.pid, () => run('curl', ['-sS', '-o', path, '-r', '0-199999999', url]))
  report("growth of the server's memory by the first 200 MB, from just after its start", once / 1e6, 'MB')
  const growth = await memoryGrowth(server.pid, async () => {
    // Broken off past 4 GiB and resumed, as a visitor would have it.
    await run('curl', ['-sS', '-o', path, '-r', '0-4294967999', url])
    await run('curl', ['-sS', '-o', path, '-C', '-', url])
  })
  report('size', (await stat(path)).size / 2 ** 30, 'GiB', { least: 4 })
  report("growth of the server's memory by the 4 GiB after that", growth / 1e6, 'MB', { most: 64 })
  const { stdout } = await run('unzip', ['-t', path])
  report('files unzip finds whole', stdout.match(/ OK$/gm)?.length ?? 0, '', { least: TIMES })
  await run('unzip', ['-q', path, `part ${TIMES - 1}.bin`, '-d', folder])
  report('the last has the bytes that were put in', Number((await sha256Of(join(folder, `part ${TIMES - 1}.bin`))) === sha256), '', {
    least: 1,
  })
  await rm(path)
}

async function checkMany(server: RunningServer): Promise<void> {
  console.log(`\nA bundle of a folder of ${MANY} files`)
  const path = join(folder, 'many.zip')
  const seconds = await timed(() => run('curl', ['-sS', '-o', path, `${server.url}/files/ten-thousand.zip`]))
  report('downloaded in', seconds, 's')
  const { stdout } = await run('python3', [
    '-c',
    'import sys, zipfile; z = zipfile.ZipFile(sys.argv[1]); print(z.testzip(), len(set(z.namelist())))',
    path,
  ])
  report("files Python's zipfile finds whole, by different names", /^None /.test(stdout) ? Number(stdout.split(' ')[1]) : 0, '', {
    least: MANY,
    most: MANY,
  })
  const size = (await stat(path)).size
  await run('curl', ['-sS', '-o', `${path}.end`, '-r', `${size - 500_000}-`, `${server.url}/files/ten-thousand.zip`])
  const handle = await open(path)
  const { buffer } = await handle.read(Buffer.alloc(500_000), 0, 500_000, size - 500_000)
  await handle.close()
  report(
    'its last 500 kB asked for alone are the same',
    Number((await sha256Of(`${path}.end`)) === createHash('sha256').update(buffer).digest('hex')),
    '',
    { least: 1 },
  )
}

try {
  const { sha256 } = await makeLibrary()
  const server = await startServer(data)
  try {
    await checkOverFour(server, sha256)
    await checkMany(server)
  } finally {
    await server.stop('SIGKILL')
  }
} finally {
  await rm(folder, { recursive: true, force: true })
}
process.exitCode = sayEnd()
