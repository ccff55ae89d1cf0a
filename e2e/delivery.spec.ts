import { execFile } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { expect, test } from '@playwright/test'
import { sha256 } from './support/files'
import { ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { upload } from './support/upload'

const curl = async (...args: string[]) =>
  (await promisify(execFile)('curl', ['-sS', ...args], { encoding: 'buffer', maxBuffer: 1e8 })).stdout

let server: RunningServer
let folder: string
let address: string
const bytes = Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(2_000_000)])

test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
  folder = await mkdtemp(join(tmpdir(), 'trough-curl-'))
  const api = await ownerApi(server.url)
  const file = await upload(server.url, 'curl.pdf', bytes)
  address = `${server.url}/files/${(await api<{ handle: string }>(`/files/${file}`)).handle}`
})
test.afterAll(async () => {
  await server.remove()
  await rm(folder, { recursive: true })
})

test('curl -r gets single, open, suffix and several ranges', async () => {
  expect((await curl('-r', '100-199', address)).equals(bytes.subarray(100, 200))).toBe(true)
  expect((await curl('-r', '1999000-', address)).equals(bytes.subarray(1_999_000))).toBe(true)
  expect((await curl('-r', '-10', address)).equals(bytes.subarray(-10))).toBe(true)
  const several = await curl('-r', '0-3,-4', address)
  expect(several.toString('latin1')).toContain(`Content-Range: bytes 0-3/${bytes.length}`)
  expect(several.includes(bytes.subarray(-4))).toBe(true)
})

test('curl -C - goes on where a download was cut, and ends with the same bytes', async () => {
  const path = join(folder, 'part.pdf')
  await writeFile(path, bytes.subarray(0, 1_234_567))
  await curl('-C', '-', '-o', path, address)
  expect(sha256(await readFile(path))).toBe(sha256(bytes))
})

test('curl -J saves under the name the server gives, -z is answered by 304, -I by the same fields', async () => {
  await curl('-OJ', '--output-dir', folder, `${address}?save`)
  expect(sha256(await readFile(join(folder, 'curl.pdf')))).toBe(sha256(bytes))
  expect(String(await curl('-o', '/dev/null', '-w', '%{http_code}', '-z', new Date(Date.now() + 1000).toUTCString(), address))).toBe('304')
  const [head, get] = await Promise.all([curl('-I', address), curl('-D', '-', '-o', '/dev/null', address)])
  const fields = (text: Buffer) =>
    String(text)
      .split('\r\n')
      .filter(line => !/^date:/i.test(line))
  expect(fields(head)).toEqual(fields(get))
})

test('a page is compressed when asked, and asked again answered by 304', async () => {
  const plain = await curl(`${server.url}/trade`)
  expect((await curl('--compressed', `${server.url}/trade`)).equals(plain)).toBe(true)
  const etag = /^etag: (.*)\r$/im.exec(String(await curl('-I', `${server.url}/trade`)))![1]!
  expect(String(await curl('-o', '/dev/null', '-w', '%{http_code}', '-H', `If-None-Match: ${etag}`, `${server.url}/trade`))).toBe('304')
})

test('a page in memory is answered as one that is looked up: whole, unchanged, in part, or not at all (RFC 9110)', async () => {
  const page = `${server.url}/kilns`
  const etag = (await curl('-I', '-H', 'Accept-Encoding: gzip', page)).toString().match(/^etag: (.+)\r$/im)![1]!
  const asked = [
    [],
    ['-I'],
    ['-H', `If-None-Match: ${etag}`],
    ['-I', '-H', `If-None-Match: ${etag}`],
    ['-H', 'If-None-Match: "other"'],
    ['-H', 'If-Match: "other"'],
    ['-r', '0-99'],
    ['-r', '-10'],
    ['-r', '0-3,-4'],
    ['-r', '99999999-'],
    ['-r', '0-99', '-H', `If-Range: ${etag}`],
    ['-r', '0-99', '-H', 'If-Range: "other"'],
  ]
  const withoutDate = (answer: Buffer) => answer.toString('latin1').replace(/^date: .*\r\n/im, '')
  const statuses: string[] = []
  for (const options of asked) {
    // What is asked of a list is not kept with the pages.
    const [looked, inMemory] = [`${page}?list=none`, page].map(url => curl('-i', '-H', 'Accept-Encoding: gzip', ...options, url))
    const answer = withoutDate(await inMemory!)
    expect(answer, options.join(' ')).toBe(withoutDate(await looked!))
    statuses.push(answer.slice(9, 12))
  }
  expect(statuses).toEqual(['200', '200', '304', '304', '200', '412', '206', '206', '206', '416', '206', '200'])
})

test('what is nowhere is said from memory as it is said after a look: to a browser, a program, and with a body', async () => {
  const asked = [
    [],
    ['-I'],
    ['-H', 'Accept-Encoding: gzip'],
    ['--compressed'],
    ['-X', 'GET', '--data', 'body'],
    ['-H', 'X-Request-Id: of-front-server'],
  ]
  // Those of catalogues are looked up.
  const ways = [`${server.url}/nowhere/at-all`, `${server.url}/nowhere`]
  const ownOf = (answer: Buffer) => answer.toString('latin1').replace(/^(?:date: .*|x-request-id: (?!of-front).*)\r\n/gim, '')
  for (const options of asked) {
    const [looked, inMemory] = [ownOf(await curl('-i', ...options, ways[0]!)), ownOf(await curl('-i', ...options, ways[1]!))]
    expect(inMemory, options.join(' ')).toBe(looked)
    expect(inMemory.slice(9, 12)).toBe('404')
  }
})
