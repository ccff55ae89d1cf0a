import { randomBytes } from 'node:crypto'
import { request } from 'node:http'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FileItem } from '../../../core/files/fileItem'
import { listen, openTestTrough, type TestTrough } from '../../testing/harness'
import { startNginx } from '../../testing/nginx'
import { freePort } from '../../testing/ports'
import { answerFile } from '../../visitors/file'

const BIG = Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(8_000_000)])

let test: TestTrough
let server: Awaited<ReturnType<typeof listen>>
let nginx: Awaited<ReturnType<typeof startNginx>>
let big: FileItem
let small: FileItem
beforeAll(async () => {
  const report = await freePort()
  test = await openTestTrough({ front: { prefix: '/_trough-store/', port: report }, proxies: ['127.0.0.1'] })
  server = await listen((incoming, response) => {
    const { pathname, search } = new URL(incoming.url!, 'http://localhost')
    return answerFile(test.trough, incoming, response, pathname, search.slice(1))
  })
  nginx = await startNginx({ trough: Number(new URL(server.url).port), report, store: join(test.folder, 'store') })
  big = await test.put('big.pdf', BIG)
  small = await test.put('small.txt', 'small enough to come from memory')
})
afterAll(async () => {
  await nginx.stop()
  await server.close()
  await test.close()
})

const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
const get = (path: string, headers: Record<string, string> = {}, base = nginx.url) =>
  fetch(`${base}/files/${path}`, { headers: { 'User-Agent': BROWSER, ...headers } })
const body = async (response: Response) => Buffer.from(await response.arrayBuffer())
const downloads = async (file: FileItem) => {
  await test.trough.tally.flush()
  return (await test.trough.library.get(file.id)).downloads
}

describe('behind nginx, which sends stored bytes itself', () => {
  it('a file arrives whole, with the fields Trough gives it, and is counted', async () => {
    // Trough itself sends no byte of it.
    expect((await get(big.handle, {}, server.url)).headers.get('x-accel-redirect')).toBe(
      `/_trough-store/sha256/${big.sha256.slice(0, 2)}/${big.sha256.slice(2, 4)}/${big.sha256}`,
    )
    const response = await get(big.handle)
    expect((await body(response)).equals(BIG)).toBe(true)
    expect(Object.fromEntries(response.headers)).toMatchObject({
      'etag': `"${big.sha256.slice(0, 32)}"`,
      'content-type': 'application/pdf',
      'content-disposition': 'inline; filename=big.pdf',
      'cache-control': 'no-cache',
      'accept-ranges': 'bytes',
      'x-content-type-options': 'nosniff',
      'repr-digest': `sha-256=:${Buffer.from(big.sha256, 'hex').toString('base64')}:`,
      'last-modified': new Date(big.changed).toUTCString(),
    })
    for (const name of ['x-trough-delivery', 'x-accel-redirect']) expect(response.headers.get(name)).toBeNull()
    await expect.poll(() => downloads(big)).toBe(1)
  })

  it.each<[string, Record<string, string>, number]>([
    ['a range', { Range: 'bytes=1000-1999' }, 206],
    ['a range that still applies', { 'Range': 'bytes=1000-1999', 'If-Range': 'OWN' }, 206],
    ['a range of other bytes', { 'Range': 'bytes=1000-1999', 'If-Range': '"other"' }, 200],
    ['several ranges', { Range: 'bytes=0-9,100-199' }, 206],
    ['a range behind the end', { Range: 'bytes=99999999-' }, 416],
    ['what the client has', { 'If-None-Match': 'OWN' }, 304],
    ['only if it is the same', { 'If-Match': 'OWN' }, 200],
    ['only if it is another', { 'If-Match': '"other"' }, 412],
  ])('%s is answered as Trough alone would answer it (RFC 9110)', async (_, headers, status) => {
    const own = Object.fromEntries(
      Object.entries(headers).map(([name, value]) => [name, value === 'OWN' ? `"${big.sha256.slice(0, 32)}"` : value]),
    )
    const response = await get(big.handle, own)
    const bytes = await body(response)
    expect(response.status).toBe(status)
    if (headers.Range === 'bytes=1000-1999' && status === 206) {
      expect(bytes.equals(BIG.subarray(1000, 2000))).toBe(true)
      expect(response.headers.get('content-range')).toBe(`bytes 1000-1999/${BIG.length}`)
    }
    if (status === 200) expect(bytes.equals(BIG)).toBe(true)
  })

  it('a download that breaks off counts only when the rest has come', async () => {
    const other = await test.put('other.pdf', BIG.subarray(0, 6_000_000))
    const received = await new Promise<number>(resolve => {
      let count = 0
      const asked = request(
        `${nginx.url}/files/${other.handle}`,
        { headers: { 'User-Agent': 'Mozilla/5.0 (broken off) Firefox/140.0' } },
        response => {
          response.on('data', (chunk: Buffer) => {
            count += chunk.length
            if (count > 300_000) asked.destroy()
          })
          response.on('error', () => undefined)
          response.on('close', () => resolve(count))
        },
      )
      asked.end()
    })
    await new Promise(resolve => setTimeout(resolve, 300))
    expect(await downloads(other)).toBe(0)
    await body(await get(other.handle, { 'Range': `bytes=${received}-`, 'User-Agent': 'Mozilla/5.0 (broken off) Firefox/140.0' }))
    await expect.poll(() => downloads(other)).toBe(1)
  })

  it('small files and bundles come through it', async () => {
    expect(await (await get(small.handle)).text()).toBe('small enough to come from memory')
    const bundle = await test.trough.bundles.create({ title: 'Through', folder: null, files: [big.id], folders: [] })
    expect((await body(await get(bundle.handle))).length).toBe(bundle.size)
  })

  it('nobody reaches the store by its address', async () => {
    expect(
      (await fetch(`${nginx.url}/_trough-store/sha256/${big.sha256.slice(0, 2)}/${big.sha256.slice(2, 4)}/${big.sha256}`)).status,
    ).toBe(404)
  })
})
