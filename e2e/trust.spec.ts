import { execFile, execFileSync, spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtemp, readFile, rm, stat, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { expect, test } from '@playwright/test'
import { openDesk, ownerApi, row } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { cookieOf } from './support/upload'

const run = promisify(execFile)
let data: string
let outside: string
let server: RunningServer
test.beforeAll(async () => {
  data = await makeData('demo')
  outside = await mkdtemp(join(tmpdir(), 'trough-outside-'))
  server = await startServer(data)
})
test.afterAll(async () => {
  await server.remove()
  await rm(outside, { recursive: true, force: true })
})

/** The command as an owner gives it; a code other than 0 is given back with what it said. */
const trough = (folder: string, ...args: string[]) =>
  run('node', ['--import', 'tsx', 'server/cli.ts', ...args], { env: { ...process.env, TROUGH_DATA: folder } }).then(
    ({ stdout }) => ({ code: 0, said: stdout }),
    (error: { code: number; stdout: string; stderr: string }) => ({ code: error.code, said: error.stdout + error.stderr }),
  )
const blobPath = (folder: string, hash: string) => join(folder, 'store/sha256', hash.slice(0, 2), hash.slice(2, 4), hash)

test('by command, with the server running: verify, back up, restore on an empty machine', async () => {
  expect(await trough(data, 'verify')).toMatchObject({
    code: 0,
    said: expect.stringContaining('All stored bytes are as they came in, and the database is whole.'),
  })
  const backup = join(outside, 'backup')
  expect((await trough(data, 'backup', backup)).said).toMatch(/^67 stored files are in .*; 67 of them, [\d.]+ MB, are new\.$/m)
  // Who is only signed in names no folders of the machine.
  await expect((await ownerApi(server.url))('/backup', { method: 'POST', json: { folder: backup } })).rejects.toMatchObject({ status: 403 })
  expect((await trough(data, 'backup', backup)).said).toMatch(/; 0 of them, 0 B, are new\.$/m)
  const elsewhere = join(outside, 'elsewhere')
  expect(await trough(elsewhere, 'restore', backup)).toMatchObject({ code: 0, said: expect.stringContaining('with 67 stored files') })
  const other = await startServer(elsewhere)
  const addresses = ['/', '/files/price-list-2026-05.pdf', '/files/test-tile-picture-pack.zip']
  for (const address of addresses) {
    const [here, there] = await Promise.all(
      [server, other].map(async ({ url }) => {
        const answer = await fetch(url + address)
        expect(answer.status, address).toBe(200)
        return Buffer.from(await answer.arrayBuffer())
      }),
    )
    expect(there!.equals(here!), address).toBe(true)
  }
  // What was made of files is left out of backups, and made again.
  const restored = await ownerApi(other.url)
  await expect.poll(() => restored<{ waiting: number; failed: number }>('/reading')).toMatchObject({ waiting: 0, now: null })
  const { items } = await restored<{ items: { id: string; preview: string }[] }>('/files?q=K60 kiln manual')
  const picture = await fetch(`${other.url}/api/files/${items[0]!.id}/preview`, { headers: { cookie: await cookieOf(other.url) } })
  expect([picture.status, picture.headers.get('content-type')]).toEqual([200, 'image/webp'])
  await other.stop()
  expect(await trough(elsewhere, 'restore', backup)).toMatchObject({ code: 1, said: expect.stringContaining('is not empty') })
  expect((await trough(data, 'nonsense')).code).toBe(2)

  const api = await ownerApi(server.url)
  const {
    items: [file],
  } = await api<{ items: { sha256: string; title: string; handle: string }[] }>('/files?q=wedging')
  const bytes = await readFile(blobPath(data, file!.sha256))
  await writeFile(blobPath(data, file!.sha256), bytes.subarray(0, 100))
  const gone = await fetch(`${server.url}/files/${file!.handle}`, { headers: { Range: 'bytes=0-50' } })
  expect([gone.status, gone.headers.get('x-request-id') !== null]).toEqual([503, true])
  // Its line in the log is found by the identity that was answered.
  expect(
    server
      .output()
      .split('\n')
      .filter(line => line.includes(gone.headers.get('x-request-id')!))
      .map(line => JSON.parse(line).err.message),
  ).toEqual([`The stored bytes ${file!.sha256} are cut off after 100 bytes.`])
  expect(await trough(data, 'verify')).toMatchObject({ code: 1, said: expect.stringContaining('“Wedging clay”, edition 1') })
  expect(await trough(data, 'verify', backup)).toMatchObject({ code: 0, said: expect.stringContaining('fetched from the backup') })
  expect((await readFile(blobPath(data, file!.sha256))).equals(bytes)).toBe(true)
})

test('a backup onto a disk that fills up is refused clearly, and the one before stays', async () => {
  const mount = join(outside, 'small')
  execFileSync('sh', ['-c', `mkdir -p ${mount} && mount -t tmpfs -o size=160m tmpfs ${mount}`])
  try {
    const backup = join(mount, 'backup')
    expect((await trough(data, 'backup', backup)).code).toBe(0)
    const list = await readFile(join(backup, 'trough-backup.json'), 'utf8')
    execFileSync('sh', ['-c', `head -c 200m /dev/zero > ${mount}/filler 2>/dev/null || true`])
    expect(await trough(data, 'backup', backup)).toMatchObject({
      code: 1,
      said: expect.stringContaining('The disk with the backup is full.'),
    })
    expect(await readFile(join(backup, 'trough-backup.json'), 'utf8')).toBe(list)
    const elsewhere = join(outside, 'from small')
    expect((await trough(elsewhere, 'restore', backup)).code).toBe(0)
  } finally {
    execFileSync('umount', [mount])
  }
})

test('the clock set back a year: everything is there, and what is new is delivered and counted', async () => {
  await server.stop()
  const port = server.port
  const child = spawn('faketime', ['-f', '-365d', 'node', '.output/server/index.mjs'], {
    env: { ...process.env, PORT: String(port), HOST: '127.0.0.1', TROUGH_DATA: data, NODE_ENV: 'production' },
    stdio: 'ignore',
    detached: true,
  })
  try {
    await expect
      .poll(
        () =>
          fetch(`${server.url}/api/health`).then(
            answer => answer.status,
            () => 0,
          ),
        { timeout: 120_000 },
      )
      .toBe(200)
    const api = await ownerApi(server.url)
    expect((await api<{ total: number }>('/files')).total).toBe(66)
    const {
      items: [file],
    } = await api<{ items: { id: string; handle: string; downloads: number }[] }>('/files?q=manual')
    const answer = await fetch(`${server.url}/files/${file!.handle}`, {
      headers: { 'User-Agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' },
    })
    await answer.arrayBuffer()
    expect(new Date(answer.headers.get('date')!).getFullYear()).toBeLessThan(new Date().getFullYear())
    await expect.poll(async () => (await api<{ downloads: number }>(`/files/${file!.id}`)).downloads).toBe(file!.downloads + 1)
    await api('/cleaning/now', { method: 'POST' })
    await api('/verify', { method: 'POST', json: {} })
    await expect.poll(async () => (await api<{ state: string }>('/verify')).state).toBe('done')
    expect((await api<{ findings: unknown[] }>('/verify')).findings).toEqual([])
  } finally {
    const ended = once(child, 'exit')
    process.kill(-child.pid!, 'SIGKILL')
    await ended
    // The server is the wrapper's child: its end is not told to us.
    await new Promise(resolve => setTimeout(resolve, 1000))
  }
  server = await startServer(data, server)
})

test('measurements are for the owner and for who has the secret, not for strangers', async () => {
  const address = `${server.url}/api/metrics`
  expect((await fetch(address)).status).toBe(401)
  expect((await fetch(address, { headers: { Authorization: `Bearer ${'0'.repeat(64)}` } })).status).toBe(401)
  const { control } = JSON.parse(await readFile(join(data, 'secrets.json'), 'utf8')) as { control: string }
  expect(((await stat(join(data, 'secrets.json'))).mode & 0o777).toString(8)).toBe('600')
  await (await fetch(`${server.url}/files/price-list-2026-05.pdf`)).arrayBuffer()
  const answer = await fetch(address, { headers: { Authorization: `Bearer ${control}` } })
  const text = await answer.text()
  expect(answer.headers.get('content-type')).toContain('application/openmetrics-text; version=1.0.0')
  expect(text).toMatch(/^trough_requests_total\{(?=[^}]*kind="file")[^}]*status="200"[^}]*\} [1-9]/m)
  expect(text).toMatch(/^trough_files 66$/m)
})

test('in Setup: where the space goes, what cleaning would free, verifying, and the library as a bag that comes in again', async ({
  page,
}) => {
  await openDesk(page, server.url, '/desk/setup/storage')
  const storage = page.getByRole('region', { name: 'Storage' })
  await expect(storage.getByRole('row', { name: /Studio photos 10/ })).toBeVisible()
  await storage.getByRole('link', { name: 'Sound' }).click()
  await expect(row(page, /WAV/)).toHaveCount(1)

  await page.getByRole('radio', { name: /Only the newest/ }).check()
  await page.getByLabel('Of each file, the newest').fill('0')
  await page.getByLabel('Of each file, the newest').blur()
  await page.getByLabel('And those younger than').fill('0')
  await expect(page.getByText(/By these rules \d+ earlier editions? would go now and free [\d.]+ kB/)).toBeVisible()
  await page.getByRole('radio', { name: 'All are kept' }).check()
  await expect(page.getByText('By these rules nothing would go now.')).toBeVisible()
  await page.getByLabel('Deleted files and pages stay in the bin').fill('10')
  await page.getByRole('button', { name: 'Save the rules' }).click()
  await expect(page.getByText('Saved.', { exact: true })).toBeVisible()

  await page.getByRole('button', { name: 'Read them all again' }).click()
  await expect(page.getByText(/all 67 stored files, [\d.]+ MB, are byte for byte as they came in/)).toBeVisible()

  await page.getByRole('link', { name: 'Moving in and out' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download the library as a bag' }).click(),
  ])
  const bag = join(outside, download.suggestedFilename())
  await download.saveAs(bag)
  execFileSync('sh', [
    '-c',
    'unzip -q "$1" -d "$2" && cd "$2"/marlpit*/ && sha256sum -c --quiet manifest-sha256.txt tagmanifest-sha256.txt',
    'sh',
    bag,
    join(outside, 'unpacked'),
  ])

  await page.goto(`${server.url}/desk?folder=top`)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Put files in…' }).click()])
  await chooser.setFiles(bag)
  await row(page, /^ZIP\s*Marlpit pottery supply/i)
    .getByRole('link')
    .click()
  await page.getByRole('button', { name: 'Bring in what is in this bag' }).click()
  await expect(page.getByText(/66 files brought in from .*, every byte checked/)).toBeVisible()
})
