import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { createServer, type RequestListener, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { strToU8, zipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { hostsSchema } from '../../../core/files/fetchHosts'
import { fileQuerySchema } from '../../../core/files/query'
import type { ClashWay } from '../../../core/files/clash'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { fetchSchema } from '../../../core/files/fetchForm'
import { nameFromAnswer } from './fetching'
import { isPublic } from './ssrfGuard'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const ended = async (id: string) => {
  await test.trough.jobs.ended(id)
  return test.trough.jobs.get(id)
}

describe('unpacking', () => {
  const unpack = async (bytes: Buffer | Uint8Array, { clash = 'both', name = 'Bundle.zip' }: { clash?: ClashWay; name?: string } = {}) => {
    const zip = await test.put(name, Buffer.from(bytes))
    return ended((await test.trough.unpacking.unpack(zip.id, clash)).id)
  }
  const pathsOf = async (ids: string[]) => {
    const folders = new Map((await test.trough.library.folders.list()).map(folder => [folder.id, folder]))
    return (await test.trough.library.byId(ids))
      .map(file => {
        const path = [file.fileName]
        for (let at = file.folder; at; at = folders.get(at)!.parent) path.unshift(folders.get(at)!.name)
        return path.join('/')
      })
      .sort()
  }

  it('keeps the paths and the bytes', async () => {
    const job = await unpack(
      zipSync({ 'a.txt': strToU8('A'), 'deep/er/b.txt': strToU8('BB'), 'empty/': new Uint8Array(), 'none.txt': new Uint8Array() }),
    )
    expect(job).toMatchObject({ state: 'done', done: 3, total: 3 })
    expect(await pathsOf(job.files)).toEqual(['Bundle/a.txt', 'Bundle/deep/er/b.txt', 'Bundle/none.txt'])
    const [file] = (await test.trough.library.list(fileQuerySchema.parse({ q: 'b.txt' }))).items
    expect(readFileSync(join(test.folder, 'store/sha256', file!.sha256.slice(0, 2), file!.sha256.slice(2, 4), file!.sha256), 'utf8')).toBe(
      'BB',
    )
  })

  it('refuses names that lead out, locked entries and damaged ones, says each, and takes the rest', async () => {
    // Python's zipfile writes any name it is given.
    const path = join(test.folder, 'evil.zip')
    execFileSync('python3', [
      '-c',
      `
import sys, zipfile, warnings
warnings.simplefilter('ignore')
z = zipfile.ZipFile(sys.argv[1], 'w', zipfile.ZIP_DEFLATED)
for name in ['../up.txt', '..\\\\\\\\up.txt', '/abs.txt', 'C:/drive.txt', 'good.txt', 'twice.txt', 'twice.txt', 'lock.txt', 'broken.txt']: z.writestr(name, 'contents of ' + name)
z.close()`,
      path,
    ])
    const bytes = readFileSync(path)
    for (let at = bytes.indexOf('PK\x01\x02'); at >= 0; at = bytes.indexOf('PK\x01\x02', at + 4)) {
      // The lowest of the flags says that an entry is encrypted (APPNOTE.TXT 4.4.4).
      if (bytes.subarray(at + 46, at + 54).toString() === 'lock.txt') bytes[at + 8]! |= 1
      // A size that is not true.
      if (bytes.subarray(at + 46, at + 56).toString() === 'broken.txt') bytes.writeUInt32LE(5, at + 24)
    }
    const job = await unpack(bytes, { name: 'Evil.zip' })
    expect(job.state).toBe('done')
    expect(await pathsOf(job.files)).toEqual(['Evil/good.txt', 'Evil/twice.txt', 'Evil/twice.txt'])
    const refused = Object.fromEntries(job.report.filter(line => line.outcome === 'refused').map(line => [line.name, line.why]))
    expect(Object.keys(refused)).toHaveLength(6)
    expect(refused['../up.txt']).toMatch(/leads out/)
    expect(refused['/abs.txt']).toMatch(/place on a computer/)
    expect(refused['lock.txt']).toMatch(/password/)
    expect(refused['broken.txt']).toMatch(/damaged/)
  })

  it('leaves out or renews what is there already, as it was told', async () => {
    const zip = (text: string) => zipSync({ 'list.txt': strToU8(text) })
    const [first] = (await unpack(zip('one'), { name: 'Again.zip' })).files
    expect((await unpack(zip('two'), { name: 'Again.zip', clash: 'skip' })).report).toMatchObject([{ outcome: 'skipped' }])
    expect(await unpack(zip('three'), { name: 'Again.zip', clash: 'edition' })).toMatchObject({
      files: [first],
      report: [{ outcome: 'edition' }],
    })
    expect((await test.trough.library.get(first!)).edition).toBe(2)
  })

  it('refuses a zip that opens to far more than itself, before a byte of it is written', async () => {
    const path = join(test.folder, 'bomb.zip')
    execFileSync('python3', [
      '-c',
      'import sys, zipfile; zipfile.ZipFile(sys.argv[1], "w", zipfile.ZIP_DEFLATED).writestr("zeros", bytes(300_000_000))',
      path,
    ])
    const job = await unpack(readFileSync(path), { name: 'bomb.zip' })
    expect(job).toMatchObject({ state: 'failed', files: [], error: expect.stringMatching(/would open to 300 MB.*not unpacked/) })
  })

  it('refuses entries that share their bytes', async () => {
    const bytes = Buffer.from(zipSync({ a: [strToU8('x'.repeat(1000)), { level: 0 }], b: [strToU8('y'), { level: 0 }] }))
    // A compressed size larger than the zip: what overlapping entries add up to.
    bytes.writeUInt32LE(2000, bytes.indexOf('PK\x01\x02') + 20)
    expect((await unpack(bytes, { name: 'overlap.zip' })).state).toBe('failed')
  })

  it('says what is no zip, and what is a broken one', async () => {
    const pdf = await test.put('a.pdf', '%PDF-1.7')
    await expect(test.trough.unpacking.unpack(pdf.id, 'both')).rejects.toMatchObject({ status: 422 })
    expect(await unpack(zipSync({ a: strToU8('x') }).subarray(0, 40), { name: 'cut.zip' })).toMatchObject({
      state: 'failed',
      error: expect.stringMatching(/damaged or cut off/),
    })
  })

  it('stops when told to; what was unpacked stays', async () => {
    const zip = await test.put(
      'Many.zip',
      Buffer.from(zipSync(Object.fromEntries(Array.from({ length: 400 }, (_, index) => [`f${index}.txt`, strToU8(String(index))])))),
    )
    const { id } = await test.trough.unpacking.unpack(zip.id, 'both')
    while (!test.trough.jobs.get(id).done) await new Promise(resolve => setTimeout(resolve, 2))
    await test.trough.jobs.stop(id)
    const job = test.trough.jobs.get(id)
    expect(job.state).toBe('stopped')
    expect(job.files.length).toBeLessThan(400)
    await test.trough.jobs.stop(id)
    expect(() => test.trough.jobs.get(id)).toThrow(/no such job/)
  })
})

describe('fetching from the web', () => {
  let web: Server
  let origin: string
  const answers: Record<string, RequestListener> = {
    '/list': (_, response) =>
      response
        .writeHead(200, {
          'Content-Disposition': 'attachment; filename="x.pdf"; filename*=UTF-8\'\'Preise%20%E2%82%AC.pdf',
          'Content-Type': 'application/pdf',
        })
        .end('%PDF-1.7 fetched'),
    '/a%20b': (_, response) => response.writeHead(200, { 'Content-Type': 'text/csv' }).end('a,b'),
    '/hop': (_, response) => response.writeHead(302, { Location: '/list' }).end(),
    '/loop': (_, response) => response.writeHead(307, { Location: '/loop' }).end(),
    '/inside': (_, response) => response.writeHead(301, { Location: 'http://169.254.169.254/secret' }).end(),
    '/odd': (_, response) => response.writeHead(301, { Location: 'file:///etc/passwd' }).end(),
    '/gone': (_, response) => response.writeHead(404).end(),
    '/short': (_, response) => {
      response.writeHead(200, { 'Content-Length': 1000 })
      response.write('half')
      setTimeout(() => response.destroy(), 20)
    },
    '/huge': (_, response) => response.writeHead(200, { 'Content-Length': '9000000000000000' }).end(),
    '/slow': (_, response) => void response.writeHead(200).write('a'),
  }
  beforeAll(async () => {
    web = createServer((request, response) => (answers[request.url!] ?? answers['/gone']!)(request, response))
    await new Promise<void>(resolve => web.listen(0, '127.0.0.1', resolve))
    origin = `http://127.0.0.1:${(web.address() as AddressInfo).port}`
  })
  afterAll(() => {
    web.closeAllConnections()
    web.close()
  })
  const fetch = async (path: string) => ended(test.trough.fetching.fetch(fetchSchema.parse({ address: origin + path })).id)

  it('refuses hosts of a private network until the owner allows them', async () => {
    const job = await fetch('/list')
    expect(job).toMatchObject({ state: 'failed', extra: { host: new URL(origin).host }, files: [] })
    await test.trough.fetching.setHosts(hostsSchema.parse({ hosts: [new URL(origin).host] }).hosts)
    expect(await test.trough.fetching.hosts()).toEqual([new URL(origin).host])
    expect((await fetch('/list')).state).toBe('done')
  })

  it('takes the name from the header, and follows redirects', async () => {
    const job = await fetch('/hop')
    expect(await test.trough.library.get(job.files[0]!)).toMatchObject({ fileName: 'Preise €.pdf', mediaType: 'application/pdf', size: 16 })
    expect((await test.trough.library.get((await fetch('/a%20b')).files[0]!)).fileName).toBe('a b.csv')
  })

  it.each([
    ['/loop', /without end/],
    ['/inside', /169\.254\.169\.254 lies in a private network/],
    ['/odd', /no web address/],
    ['/gone', /answers 404/],
    ['/short', /did not arrive whole/],
    ['/huge', /larger than/],
  ])('%s is refused clearly', async (path, words) => {
    const job = await fetch(path)
    expect(job.state).toBe('failed')
    expect(job.error).toMatch(words)
  })

  it('can be stopped', async () => {
    const { id } = test.trough.fetching.fetch(fetchSchema.parse({ address: `${origin}/slow` }))
    while (!test.trough.jobs.get(id).done) await new Promise(resolve => setTimeout(resolve, 5))
    await test.trough.jobs.stop(id)
    expect(test.trough.jobs.get(id)).toMatchObject({ state: 'stopped', error: null })
  })

  it.each(['ftp://a.example/x', 'javascript:alert(1)', 'file:///etc/passwd', 'http://', ' '])('%s is no web address', address =>
    expect(fetchSchema.safeParse({ address }).success).toBe(false),
  )
  it('adds https where no scheme is given', () =>
    expect(fetchSchema.parse({ address: 'www.example.com/a.pdf' }).address).toBe('https://www.example.com/a.pdf'))

  // Networks of the IANA special-purpose address registries (RFC 6890), and their IPv6 disguises.
  it.each([
    '127.0.0.1',
    '10.1.2.3',
    '172.16.0.1',
    '192.168.1.1',
    '169.254.169.254',
    '100.64.0.1',
    '0.0.0.0',
    '224.0.0.1',
    '255.255.255.255',
    '::1',
    '::',
    'fc00::1',
    'fe80::1',
    '::ffff:127.0.0.1',
    '::ffff:7f00:1',
    'ff02::1',
    'no address',
  ])('%s is not public', address => expect(isPublic(address)).toBe(false))
  it.each(['93.184.216.34', '2606:2800:220:1::1', '8.8.8.8'])('%s is public', address => expect(isPublic(address)).toBe(true))

  it.each([
    ['https://a.example/x/list.pdf?y=1', undefined, undefined, 'list.pdf'],
    ['https://a.example/', undefined, 'application/pdf', 'a.example'],
    ['https://a.example/doc', undefined, 'application/pdf', 'doc.pdf'],
    ['https://a.example/%E0%A4%A', undefined, undefined, '%E0%A4%A'],
    ['https://a.example/x', 'attachment; filename="../../up.pdf"', undefined, 'up.pdf'],
    ['https://a.example/x', 'inline', 'text/plain; charset=utf-8', 'x.txt'],
  ])('%s (%s) is called %s', (address, disposition, type, name) => expect(nameFromAnswer(new URL(address), disposition, type)).toBe(name))
})
