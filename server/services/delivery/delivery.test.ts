import { randomBytes } from 'node:crypto'
import { request } from 'node:http'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import type { FileItem } from '../../../core/files/fileItem'
import { button, pageOf } from '../../../core/testing/pages'
import { listen, openTestTrough, sha256, type TestTrough } from '../../testing/harness'
import { answerFile, answerFileAtOnce } from '../../visitors/file'

const BROWSER = { 'User-Agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' }
const BIG = Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(3_000_000)])
let test: TestTrough
let server: Awaited<ReturnType<typeof listen>>
let big: FileItem

beforeAll(async () => {
  test = await openTestTrough()
  server = await listen((incoming, response) => {
    const { pathname, search } = new URL(incoming.url!, 'http://localhost')
    return answerFile(test.trough, incoming, response, pathname, search.slice(1))
  })
  big = await test.put('Big liste ä.pdf', BIG)
})
afterAll(async () => {
  await server.close()
  await test.close()
})

const get = (path: string, headers: Record<string, string> = {}, method = 'GET') =>
  fetch(`${server.url}/files/${path}`, { method, headers: { ...BROWSER, ...headers }, redirect: 'manual' })
const body = async (response: Response) => Buffer.from(await response.arrayBuffer())
async function downloads(file = big): Promise<number> {
  await wait(30)
  await test.trough.tally.flush()
  return (await test.trough.library.get(file.id)).downloads
}

/** What left is told to the tally after whoever asked has it: how long after depends on the machine. */
async function expectDownloads(count: number, file = big): Promise<void> {
  await expect.poll(() => downloads(file)).toBeGreaterThanOrEqual(count)
  expect(await downloads(file)).toBe(count)
}

describe('a file', () => {
  // RFC 9110, section 8.3.2; names of the Encoding Standard.
  it('of text arrives as it came in, in the encoding that it is in', async () => {
    const utf16 = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('Größe;Preis\n', 'utf16le')])
    for (const [name, bytes, type] of [
      ['brief.txt', Buffer.from('Sehr geehrte Frau Müller, schöne Grüße', 'latin1'), 'text/plain; charset=windows-1252'],
      ['liste.csv', utf16, 'text/csv; charset=utf-16le'],
      ['note.txt', Buffer.from('Grüße'), 'text/plain; charset=utf-8'],
    ] as const) {
      const response = await get((await test.put(name, bytes)).handle)
      expect(response.headers.get('content-type')).toBe(type)
      expect((await body(response)).equals(bytes)).toBe(true)
    }
  })

  it('arrives whole, with type, digest and name', async () => {
    const response = await get(big.handle)
    expect(sha256(await body(response))).toBe(big.sha256)
    expect(Object.fromEntries(response.headers)).toMatchObject({
      'content-type': 'application/pdf',
      'accept-ranges': 'bytes',
      'x-content-type-options': 'nosniff',
      'cache-control': 'no-cache',
      'content-length': String(BIG.length),
      // RFC 9530: the digest as a byte sequence (RFC 8941).
      'repr-digest': `sha-256=:${Buffer.from(big.sha256, 'hex').toString('base64')}:`,
    })
    expect(response.headers.get('content-disposition')).toMatch(/^inline; .*filename\*=UTF-8''Big%20liste%20%C3%A4\.pdf$/)
  })

  it('is saved when asked', async () =>
    expect((await get(`${big.handle}?save`, {}, 'HEAD')).headers.get('content-disposition')).toMatch(/^attachment/))

  it('gives random ranges equal to the slices of the whole', async () => {
    for (let round = 0; round < 25; round++) {
      const [start, end] = [Math.random(), Math.random()].map(share => Math.floor(share * BIG.length)).sort((a, b) => a - b) as [
        number,
        number,
      ]
      const response = await get(big.handle, { Range: `bytes=${start}-${end}` })
      expect(response.status).toBe(206)
      expect((await body(response)).equals(BIG.subarray(start, end + 1))).toBe(true)
    }
  })

  it('gives several ranges as one multipart answer of the announced length', async () => {
    const response = await get(big.handle, { Range: 'bytes=0-8,100-199,-10' })
    const bytes = await body(response)
    expect(bytes.length).toBe(Number(response.headers.get('content-length')))
    const boundary = /boundary=(\w+)/.exec(response.headers.get('content-type')!)![1]!
    const parts = bytes
      .toString('latin1')
      .split(`--${boundary}`)
      .slice(1, -1)
      .map(part => part.split('\r\n\r\n').slice(1).join('\r\n\r\n').slice(0, -2))
    expect(parts).toEqual([BIG.subarray(0, 9), BIG.subarray(100, 200), BIG.subarray(-10)].map(slice => slice.toString('latin1')))
  })

  it('answers 304 to its own validators', async () => {
    const { headers } = await get(big.handle, {}, 'HEAD')
    expect((await get(big.handle, { 'If-None-Match': headers.get('etag')! })).status).toBe(304)
    expect((await get(big.handle, { 'If-Modified-Since': headers.get('last-modified')! })).status).toBe(304)
  })

  it('that could run script is saved, in a sandbox', async () => {
    const page = await test.put('page.html', '<!DOCTYPE html><html><script>alert(1)</script>')
    const { headers } = await get(`${page.handle}?open`)
    expect(headers.get('content-disposition')).toMatch(/^attachment/)
    expect(headers.get('content-security-policy')).toContain('sandbox')
  })

  it('that is empty arrives empty, and has no ranges', async () => {
    const empty = await test.put('empty.pdf', '')
    const response = await get(empty.handle)
    expect([response.status, response.headers.get('content-length'), (await body(response)).length]).toEqual([200, '0', 0])
    expect((await get(empty.handle, { Range: 'bytes=0-' })).status).toBe(416)
  })

  it('redirects from its former handle, keeps the query, and is gone when deleted', async () => {
    const file = await test.put('moves.pdf', '%PDF-1.7 moves')
    await test.trough.library.change(file.id, { handle: 'moved.pdf' })
    const moved = await get('moves.pdf?save&at=abcdefgh')
    expect([moved.status, moved.headers.get('location')]).toEqual([308, '/files/moved.pdf?save&at=abcdefgh'])
    await test.trough.library.remove({ files: [file.id], folders: [] })
    expect((await get('moved.pdf')).status).toBe(410)
    expect((await get('never.pdf')).status).toBe(404)
  })

  it('has editions by number: the current one, and no others unless made public', async () => {
    expect((await get(`${big.handle}?edition=1`, {}, 'HEAD')).status).toBe(200)
    for (const number of ['2', '0', '-1', 'x', '99999999999']) expect((await get(`${big.handle}?edition=${number}`)).status).toBe(404)
  })

  it('is saved under the name its live button gives, always with its own ending', async () => {
    const page = await test.trough.pages.create({ title: 'Saves' })
    const draft = pageOf(button({ placement: 'saveplace1', target: { kind: 'file', id: big.id }, action: 'save', saveAs: 'For you' }))
    await test.trough.pages.saveDraft(page.id, { title: page.title, draft, revision: page.revision })
    await test.trough.pages.publish(page.id)
    expect((await get(`${big.handle}?save&at=saveplace1`, {}, 'HEAD')).headers.get('content-disposition')).toBe(
      'attachment; filename="For you.pdf"',
    )
  })
})

describe('at once', () => {
  it('says what would be said anyway, and counts it', async () => {
    const small = await test.put('Small.pdf', '%PDF-1.7 small')
    const text = await test.put('words.txt', 'kiln '.repeat(900))
    const page = await test.trough.pages.create({ title: 'Names it' })
    const draft = pageOf(button({ placement: 'smallplace', target: { kind: 'file', id: small.id }, action: 'save', saveAs: 'Named' }))
    await test.trough.pages.saveDraft(page.id, { title: page.title, draft, revision: page.revision })
    await test.trough.pages.publish(page.id)
    const atOnce: string[] = []
    const quick = await listen(async (incoming, response) => {
      const { pathname, search } = new URL(incoming.url!, 'http://localhost')
      if (answerFileAtOnce(test.trough, incoming, response, pathname, search.slice(1)))
        return void atOnce.push(`${incoming.method} ${pathname}${search}`)
      response.writeHead(501).end()
    })
    let [visitors, whole] = [0, 0]
    const asked = async (origin: string, path: string, method: string, headers: Record<string, string>) => {
      // Each is somebody else: of one visitor's clicks within 30 seconds one counts.
      const response = await fetch(`${origin}/files/${path}`, {
        method,
        headers: { 'User-Agent': `${BROWSER['User-Agent']} ${++visitors}`, ...headers },
      })
      if (response.status === 200) whole++
      const fields = Object.fromEntries(response.headers)
      delete fields.date
      return { status: response.status, fields, body: (await body(response)).toString('latin1') }
    }
    const { headers } = await get(small.handle, {}, 'HEAD')
    const etag = headers.get('etag')!
    await get(`${small.handle}?save&at=smallplace`)
    const before = await downloads(small)

    const requests: Record<string, string>[] = [
      {},
      { Range: 'bytes=2-5' },
      { 'If-None-Match': etag },
      { 'Range': 'bytes=0-', 'If-Range': '"other"' },
    ]
    for (const query of ['', '?save', '?at=smallplace', '?save&at=smallplace']) {
      for (const fields of requests) {
        const path = small.handle + query
        // What changed is heard of once more by each connection to PostgreSQL, and forgets what is in memory: the usual way puts it there.
        const [usual, answer] = await vi.waitUntil(
          async () => {
            const both = [await asked(server.url, path, 'GET', fields), await asked(quick.url, path, 'GET', fields)]
            return both[1]!.status !== 501 && both
          },
          { timeout: 200_000 },
        )
        expect(answer, `${path} ${JSON.stringify(fields)}`).toEqual(usual)
      }
    }
    expect(atOnce).toHaveLength(16)
    // Of the four requests for each address two get the whole, here and in the usual way; a range of it is no download.
    expect(whole).toBeGreaterThanOrEqual(16)
    await expectDownloads(before + whole, small)

    // What is left to the usual way: other editions, several ranges, what fails, texts with their packed forms, what is not in memory.
    for (const [path, fields] of [
      [`${small.handle}?edition=1`, {}],
      [small.handle, { Range: 'bytes=0-1,4-5' }],
      [small.handle, { Range: 'bytes=90-' }],
      [small.handle, { 'If-Match': '"other"' }],
      [text.handle, {}],
      [big.handle, {}],
      ['never.pdf', {}],
    ] as const) {
      expect((await asked(quick.url, path, 'GET', fields)).status, path).toBe(501)
    }
    await test.trough.library.change(small.id, { handle: 'smaller.pdf' })
    expect((await asked(quick.url, small.handle, 'GET', {})).status).toBe(501)
    await quick.close()
  })
})

describe('counting', () => {
  it('leaves out what whoever is signed in tries, and goes on with others', async () => {
    const { account, sessions } = test.trough
    const { id } = await account.create('owner@marlpit.example', 'kiln glaze marl')
    const token = await sessions.begin(id, '127.0.0.1', undefined)
    const file = await test.put('tried.pdf', '%PDF-1.7 tried')
    await body(await get(file.handle, { Cookie: `a=b; trough=${token}` }))
    expect(await downloads(file)).toBe(0)
    await body(await get(file.handle, { Cookie: `trough=${'x'.repeat(43)}` }))
    await expectDownloads(1, file)
  })

  it('counts a whole download with its button, and nothing of HEAD, 304, 416 or robots', async () => {
    const before = await downloads()
    const { headers } = await get(big.handle, {}, 'HEAD')
    await body(await get(big.handle, { 'If-None-Match': headers.get('etag')! }))
    await body(await get(big.handle, { Range: 'bytes=9999999-' }))
    await body(await get(big.handle, { 'User-Agent': 'Examplebot/1.0' }))
    expect(await downloads()).toBe(before)
    const visitor = { 'User-Agent': `${BROWSER['User-Agent']} whole` }
    await body(await get(`${big.handle}?open&at=saveplace1`, visitor))
    await expectDownloads(before + 1)
    // Clicked twice, and fetched ahead of a click.
    await body(await get(`${big.handle}?open&at=saveplace1`, visitor))
    await body(await get(big.handle, { 'User-Agent': `${BROWSER['User-Agent']} ahead`, 'Sec-Purpose': 'prefetch' }))
    expect(await downloads()).toBe(before + 1)
    const [page] = (await test.trough.pages.list()).filter(item => item.title === 'Saves')
    expect(await test.trough.pages.downloads(page!.id)).toEqual({ saveplace1: 1 })
  })

  it('counts the ranges of one transfer once', async () => {
    const before = await downloads()
    const third = Math.ceil(BIG.length / 3)
    const ranges = [0, 1, 2].map(part => `bytes=${part * third}-${Math.min(BIG.length, (part + 1) * third) - 1}`)
    await Promise.all(ranges.map(async Range => body(await get(big.handle, { Range, 'User-Agent': `${BROWSER['User-Agent']} parts` }))))
    await expectDownloads(before + 1)
  })

  it('does not count what was broken off, until it was resumed to its end', async () => {
    const huge = await test.put('huge.pdf', Buffer.concat([Buffer.from('%PDF-1.7\n'), randomBytes(30_000_000)]))
    // A client that reads a little and goes away: what the system had taken of it by then counts as sent.
    const received = await new Promise<number>(resolve => {
      let count = 0
      const asked = request(`${server.url}/files/${huge.handle}`, { headers: BROWSER }, response => {
        response.on('data', (chunk: Buffer) => {
          count += chunk.length
          if (count > 500_000) asked.destroy()
        })
        response.on('error', () => undefined)
        response.on('close', () => resolve(count))
      })
      asked.end()
    })
    expect(await downloads(huge)).toBe(0)
    await body(await get(huge.handle, { Range: `bytes=${received}-` }))
    await expectDownloads(1, huge)
  })
})
