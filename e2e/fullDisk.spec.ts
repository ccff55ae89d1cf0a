import { execFileSync, spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { once } from 'node:events'
import { cp, mkdtemp, readdir, rm, statfs, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import type { FileItem } from '../core/files/fileItem'
import { BUILT_IN_LOOKS } from '../core/look/builtin'
import { DEFAULT_STYLE } from '../core/look/siteStyle'
import type { PageDetails } from '../core/page/pageItem'
import { sha256 } from './support/files'
import { openDesk, ownerApi } from './support/owner'
import { startServer } from './support/server'
import { beginUpload, cookieOf, offsetOf, sendFrom, upload } from './support/upload'

// Each has a disk of its own.
test.describe.configure({ mode: 'parallel' })

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
