import { execFileSync, spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { once } from 'node:events'
import { cp, mkdtemp, readdir, rm, statfs, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { expect, test } from '@playwright/test'
import type { FileItem } from '../core/files/fileItem'
import { BUILT_IN_LOOKS } from '../core/look/builtin'
import { DEFAULT_STYLE } from '../core/look/siteStyle'
import type { PageDetails } from '../core/page/pageItem'
import { sha256 } from './support/files'
import { openDesk, ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { beginUpload, cookieOf, offsetOf, sendFrom, upload } from './support/upload'

// Each has a server of its own.
test.describe.configure({ mode: 'parallel' })

let data: string
let server: RunningServer
test.beforeEach(async () => {
  data = await makeData('demo')
  server = await startServer(data)
})
test.afterEach(() => server.remove())

async function killAndRestart() {
  await server.stop('SIGKILL')
  server = await startServer(data, server)
}

const words = (text: string) => ({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] })

test('kill -9 during an upload: it resumes after the restart and ends with the same SHA-256', async () => {
  const bytes = randomBytes(8_000_000)
  const cookie = await cookieOf(server.url)
  const address = await beginUpload(server.url, cookie, 'killed.bin', bytes.length)
  let kills = 0
  for (let offset = 0; offset < bytes.length; offset = await offsetOf(address, cookie)) {
    const sending = sendFrom(address, cookie, offset, bytes.subarray(offset)).catch(() => undefined)
    if (kills === 3) {
      await sending
      continue
    }
    // Long enough for some of the bytes to have arrived, short enough to fall in their midst.
    await wait(2 + Math.random() * 12)
    kills++
    await killAndRestart()
    await sending
  }
  const id = address.split('/').at(-1)
  const { file } = await (await fetch(`${server.url}/api/uploads/${id}/file`, { headers: { cookie } })).json()
  expect(kills).toBe(3)
  expect(file.sha256).toBe(sha256(bytes))
  const delivered = Buffer.from(await (await fetch(`${server.url}/files/${file.handle}`)).arrayBuffer())
  expect(sha256(delivered)).toBe(sha256(bytes))
})

test('kill -9 while pages are saved and published and files come in: all that was acknowledged is there, nothing half-made', async () => {
  const api = await ownerApi(server.url)
  const cookie = await cookieOf(server.url)
  const page = await api<{ id: string; revision: number }>('/pages', { method: 'POST', json: { title: 'Killed' } })
  const acknowledged = { saved: 0, live: 0, files: new Map<string, string>() }
  let revision = page.revision
  let count = 0
  for (let round = 0; round < 5; round++) {
    const work = (async () => {
      for (;;) {
        count++
        revision = (
          await api<{ revision: number }>(`/pages/${page.id}/draft`, {
            method: 'PUT',
            json: { title: 'Killed', draft: words(`version ${count}.`), revision },
          })
        ).revision
        acknowledged.saved = count
        await api(`/pages/${page.id}/publish`, { method: 'POST', json: {} })
        acknowledged.live = count
        const bytes = randomBytes(50_000)
        acknowledged.files.set(await upload(server.url, `during-${count}.bin`, bytes, cookie), sha256(bytes))
      }
    })().catch(() => undefined)
    for (const before = acknowledged.files.size; acknowledged.files.size < before + 2;) await wait(20)
    await wait(Math.random() * 500)
    await killAndRestart()
    await work
    const { draft, revision: kept } = await api<{ draft: object; revision: number }>(`/pages/${page.id}`)
    revision = kept
    const versionIn = (text: string) => Number(/version (\d+)\./.exec(text)?.[1] ?? 0)
    // One more than was acknowledged may have been written: its answer was lost with the process.
    expect([acknowledged.saved, acknowledged.saved + 1]).toContain(versionIn(JSON.stringify(draft)))
    expect([acknowledged.live, acknowledged.live + 1]).toContain(versionIn(await (await fetch(`${server.url}/killed`)).text()))
    for (const [id, hash] of acknowledged.files) expect((await api<{ sha256: string }>(`/files/${id}`)).sha256).toBe(hash)
  }
  expect(acknowledged.files.size).toBeGreaterThanOrEqual(10)
  // Every record points at whole bytes.
  type Item = { handle: string; sha256: string; bundle: boolean; gate: string | null; folder: string | null }
  const { items } = await api<{ items: Item[] }>('/files?limit=500')
  const folders = (await api<{ items: { id: string; gate: string | null }[] }>('/folders')).items
  const gated = new Set<string | null>(folders.flatMap(({ id, gate }) => (gate === null ? [] : id)))
  for (const { handle, sha256: hash } of items.filter(({ bundle, gate, folder }) => !bundle && gate === null && !gated.has(folder))) {
    expect(sha256(Buffer.from(await (await fetch(`${server.url}/files/${handle}`)).arrayBuffer())), handle).toBe(hash)
  }
})

test('a second process on the same data folder is refused with a clear message', async () => {
  const second = spawn('node', ['.output/server/index.mjs'], { env: { ...process.env, PORT: '0', HOST: '127.0.0.1', TROUGH_DATA: data } })
  let output = ''
  second.stderr.on('data', (chunk: Buffer) => (output += chunk))
  const [code] = await once(second, 'exit')
  expect(code).toBe(1)
  expect(output).toContain(`is in use by process ${server.pid}. Stop that one first, or set TROUGH_DATA to another folder.`)
  expect((await fetch(`${server.url}/api/health`)).status).toBe(200)
})

test('SIGTERM closes cleanly: what was counted is written, the folder is given back', async () => {
  const api = await ownerApi(server.url)
  const {
    items: [file],
  } = await api<{ items: { id: string; handle: string; downloads: number }[] }>('/files?q=manual')
  await (
    await fetch(`${server.url}/files/${file!.handle}`, {
      headers: { 'User-Agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' },
    })
  ).arrayBuffer()
  await server.stop('SIGTERM')
  server = await startServer(data, server)
  expect((await api<{ downloads: number }>(`/files/${file!.id}`)).downloads).toBe(file!.downloads + 1)
})

test('a full disk is said clearly, the library stays whole, and the upload goes on when there is room', async () => {
  const disk = await smallDisk('300m')
  const { mount } = disk
  const small = join(mount, 'data')
  await cp(process.env.TROUGH_DEMO_TEMPLATE!, small, { recursive: true })
  const tight = await startServer(small)
  try {
    const cookie = await cookieOf(tight.url)
    const api = await ownerApi(tight.url)
    await expect(beginUpload(tight.url, cookie, 'huge.bin', 1_000_000_000)).rejects.toThrow(
      /507 The disk is full\..*Nothing in the library was touched/,
    )
    const bytes = randomBytes(20_000_000)
    const address = await beginUpload(tight.url, cookie, 'fits.bin', bytes.length)
    // Somebody else takes the room meanwhile, all but a few megabytes.
    const { bavail, bsize } = await statfs(mount)
    await writeFile(join(mount, 'filler'), Buffer.alloc(bavail * bsize - 8_000_000))
    const refused = await sendFrom(address, cookie, 0, bytes)
    expect(refused.status).toBe(507)
    expect(await refused.text()).toContain('resume: what has arrived is kept')
    expect((await api<{ total: number }>('/files')).total).toBe(66)
    await rm(join(mount, 'filler'))
    const offset = await offsetOf(address, cookie)
    expect(offset).toBeGreaterThan(0)
    const done = await sendFrom(address, cookie, offset, bytes.subarray(offset))
    expect((await api<{ sha256: string }>(`/files/${done.headers.get('trough-file')}`)).sha256).toBe(sha256(bytes))
    expect((await readdir(join(small, 'incoming'))).filter(name => name.endsWith('.part'))).toEqual([])
  } finally {
    await tight.stop('SIGKILL')
    await disk.remove()
  }
})

/** A small disk of its own, and what takes all the room that is left on it. */
async function smallDisk(size: string) {
  const mount = await mkdtemp(join(tmpdir(), 'trough-small-'))
  execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${size}`, 'tmpfs', mount])
  return {
    mount,
    async fill() {
      const { bavail, bsize } = await statfs(mount)
      await writeFile(join(mount, 'filler'), Buffer.alloc(bavail * bsize))
    },
    empty: () => rm(join(mount, 'filler')),
    async remove() {
      execFileSync('umount', [mount])
      await rm(mount, { recursive: true })
    },
  }
}

test('started on a disk without any room it serves visitors, says so on the desk, and files deleted for good make room', async ({
  page,
}) => {
  const disk = await smallDisk('700m')
  const own = join(disk.mount, 'data')
  await cp(process.env.TROUGH_DEMO_TEMPLATE!, own, { recursive: true })
  let tight = await startServer(own)
  try {
    const large = await upload(tight.url, 'large.bin', randomBytes(60_000_000))
    await expect.poll(() => readdir(own)).toContain('reserve')
    await tight.stop('SIGKILL')
    await disk.fill()
    expect((await statfs(disk.mount)).bavail).toBe(0)
    tight = await startServer(own, tight)
    for (const path of ['/', '/kilns', '/files/price-list-2026-05.pdf']) expect((await fetch(tight.url + path)).status, path).toBe(200)
    const api = await ownerApi(tight.url)
    const refused = (await api('/pages', { method: 'POST', json: { title: 'One more' } }).catch((error: unknown) => error)) as {
      status: number
      problem: { detail: string }
    }
    expect([refused.status, refused.problem.detail]).toEqual([507, expect.stringContaining(`the disk with ${own}`)])
    await openDesk(page, tight.url)
    await expect(page.getByText('The disk with the data folder is full')).toBeVisible()

    await api('/selection/remove', { method: 'POST', json: { files: [large], folders: [] } })
    await page.reload()
    await page.getByRole('button', { name: 'Bin', exact: true }).click()
    await page.getByRole('button', { name: 'Empty the bin…' }).click()
    await expect(page.getByRole('dialog')).toContainText('That frees 60 MB')
    await page.getByRole('button', { name: 'Delete for good' }).click()
    await expect(page.getByText('1 file deleted for good, 60 MB freed.')).toBeVisible()
    await expect(page.getByText('The disk with the data folder is full')).toHaveCount(0)
    await api('/pages', { method: 'POST', json: { title: 'One more' } })
  } finally {
    await tight.stop('SIGKILL')
    await disk.remove()
  }
})

test('a disk without any room refuses each change clearly, goes on serving visitors, and takes changes again when there is room', async () => {
  const disk = await smallDisk('400m')
  const data = join(disk.mount, 'data')
  await cp(process.env.TROUGH_DEMO_TEMPLATE!, data, { recursive: true })
  const tight = await startServer(data)
  try {
    const api = await ownerApi(tight.url)
    const { items } = await api<{ items: PageDetails[] }>('/pages')
    const { id, draft, revision } = await api<PageDetails>(`/pages/${items.find(({ slug }) => slug === 'kilns')!.id}`)
    const {
      items: [file],
    } = await api<{ items: FileItem[] }>('/files?folder=top')
    const {
      items: [zip],
    } = await api<{ items: FileItem[] }>('/files?type=archive')
    const {
      items: [photo],
    } = await api<{ items: FileItem[] }>('/files?type=picture')
    await disk.fill()
    const look = { name: 'New', appearance: BUILT_IN_LOOKS[0]!.appearance }
    const changes: [way: string, path: string, json: unknown][] = [
      ['PUT', `/pages/${id}/draft`, { title: 'Kilns, changed', draft, revision }],
      ['POST', `/pages/${id}/publish`, {}],
      ['POST', '/pages', { title: 'One more' }],
      ['PATCH', `/pages/${id}/settings`, { description: 'Changed' }],
      ['POST', '/folders', { name: 'New', parent: null }],
      ['POST', '/looks', look],
      ['PUT', '/style', DEFAULT_STYLE],
      ['POST', '/selection/copy', { files: [file!.id], folders: [], to: null }],
      ['POST', '/fetches', { address: 'https://www.example.com/list.pdf', folder: null }],
      ['PUT', '/site', { name: 'Other', address: '' }],
      ['POST', `/files/${zip!.id}/unpack`, { clash: 'both' }],
      ['POST', `/files/${zip!.id}/bag`, { folder: null }],
      ['POST', `/bundles`, { title: 'Both', folder: null, files: [file!.id], folders: [] }],
    ]
    for (const [method, path, json] of changes) {
      const refused = (await api(path, { method, json }).catch((error: unknown) => error)) as { status: number; problem: { title: string } }
      expect([path, refused.status, refused.problem?.title]).toEqual([path, 507, 'The disk is full.'])
    }
    // A picture that was never drawn at that width is drawn, though it cannot be kept.
    for (const path of ['/', '/kilns', `/files/${file!.handle}`, `/pictures/${photo!.handle}?width=320`])
      expect((await fetch(tight.url + path)).status, path).toBe(200)
    // Taking things elsewhere writes nothing here.
    expect(await api('/bag', { method: 'POST', json: { folder: null } })).toMatchObject({ size: expect.any(Number) })
    await disk.empty()
    expect(await api<PageDetails>(`/pages/${id}`)).toMatchObject({ title: 'Kilns', revision })
    await api(`/pages/${id}/draft`, { method: 'PUT', json: { title: 'Kilns, changed', draft, revision } })
    await api('/folders', { method: 'POST', json: { name: 'New', parent: null } })
  } finally {
    await tight.stop('SIGKILL')
    await disk.remove()
  }
})

test('a database without room for its log ends the process and says so; what it had acknowledged is there after the next start', async () => {
  const disk = await smallDisk('160m')
  const script = ['--import', 'tsx', 'e2e/support/fillLog.ts', join(disk.mount, 'db')]
  const writing = spawn('node', script, { stdio: ['pipe', 'pipe', 'pipe'] })
  const ended = once(writing, 'exit') as Promise<[number]>
  try {
    let said = ''
    let log = ''
    writing.stderr.on('data', chunk => (log += chunk))
    writing.stdout.on('data', chunk => (said += chunk))
    await expect.poll(() => said, { timeout: 120_000 }).toContain('ready')
    await disk.fill()
    writing.stdin.write('go\n')
    const [code] = await ended
    expect(code).toBe(1)
    expect(said + log).toContain('see that the disk has room')
    const acknowledged = Math.max(...said.split('\n').map(Number).filter(Number.isInteger))
    expect(acknowledged).toBeGreaterThan(100)
    await disk.empty()
    expect(Number(execFileSync('node', [...script, 'read'], { encoding: 'utf8' }))).toBeGreaterThanOrEqual(acknowledged)
  } finally {
    writing.kill('SIGKILL')
    await ended
    await disk.remove()
  }
})
