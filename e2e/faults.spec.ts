import { spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { once } from 'node:events'
import { setTimeout as wait } from 'node:timers/promises'
import { expect, test } from '@playwright/test'
import { sha256 } from './support/files'
import { ownerApi } from './support/owner'
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
