import { createHash, randomBytes } from 'node:crypto'
import { access, mkdir, readFile, readdir, rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { Upload as TusUpload } from 'tus-js-client'
import { Upload } from '@tus/utils'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { listen, openTestTrough, sha256, type TestTrough } from '../../testing/harness'
import type { Access } from '../rights/access'
import { RunningDigest } from './digest'
import { IncomingStore } from './incoming'

let test: TestTrough
let owner: Access
let server: Awaited<ReturnType<typeof listen>>
beforeAll(async () => {
  test = await openTestTrough()
  owner = await test.trough.access.of(null, '')
  server = await listen((request, response) => test.trough.uploads.handle(request, response, owner))
})
afterAll(async () => {
  await server.close()
  await test.close()
})

const TUS = { 'Tus-Resumable': '1.0.0' }
const pair = (key: string, text: string) => `${key} ${Buffer.from(text).toString('base64')}`
const name = (text: string) => pair('filename', text)

const begin = (length: number, metadata: string) =>
  fetch(`${server.url}/api/uploads`, { method: 'POST', headers: { ...TUS, 'Upload-Length': String(length), 'Upload-Metadata': metadata } })

async function create(length: number, fileName = 'a.bin', more = ''): Promise<string> {
  const response = await begin(length, name(fileName) + more)
  expect(response.status).toBe(201)
  return server.url + response.headers.get('location')!
}

const patch = (url: string, offset: number, body: Buffer, headers: Record<string, string> = {}) =>
  fetch(url, {
    method: 'PATCH',
    headers: { ...TUS, 'Upload-Offset': String(offset), 'Content-Type': 'application/offset+octet-stream', ...headers },
    body: new Uint8Array(body),
  })

const offsetOf = async (url: string) => Number((await fetch(url, { method: 'HEAD', headers: TUS })).headers.get('upload-offset'))

describe('RunningDigest', () => {
  it('computes SHA-256 (FIPS 180-4 vectors) and CRC-32 (the check value of "123456789")', () => {
    const digest = RunningDigest.empty()
    digest.update(Buffer.from('123'))
    const branch = digest.copy()
    digest.update(Buffer.from('456789'))
    expect(digest.result().crc32).toBe(0xcbf43926)
    branch.update(Buffer.from('x'))
    expect(digest.result().sha256).toBe(sha256('123456789'))
    const abc = RunningDigest.empty()
    abc.update(Buffer.from('abc'))
    expect(abc.result().sha256).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad')
    expect(RunningDigest.empty().result()).toEqual({ sha256: 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855', crc32: 0 })
  })
})

describe('tus 1.0', () => {
  it('offers creation, termination, checksum and expiration', async () => {
    const { headers } = await fetch(`${server.url}/api/uploads`, { method: 'OPTIONS' })
    expect(headers.get('tus-version')).toContain('1.0.0')
    expect(headers.get('tus-extension')!.split(',')).toEqual([
      'creation',
      'creation-with-upload',
      'creation-defer-length',
      'termination',
      'checksum',
      'expiration',
      'concatenation',
    ])
    expect(headers.get('tus-checksum-algorithm')!.split(',')).toContain('sha1')
  })

  it('makes a file of what arrived, with its digests', async () => {
    const bytes = randomBytes(70_000)
    const url = await create(bytes.length, 'Prüf bericht.bin')
    expect((await patch(url, 0, bytes.subarray(0, 30_000))).status).toBe(204)
    const last = await patch(url, 30_000, bytes.subarray(30_000))
    expect(last.status).toBe(204)
    const file = await test.trough.library.get(last.headers.get('trough-file')!)
    expect(file).toMatchObject({ fileName: 'Prüf bericht.bin', handle: 'pruf-bericht.bin', sha256: sha256(bytes), size: 70_000 })
    expect(await readFile(join(test.folder, 'store/sha256', file.sha256.slice(0, 2), file.sha256.slice(2, 4), file.sha256))).toEqual(bytes)
    // A client whose last answer was lost asks again, and gets the same file.
    expect(await offsetOf(url)).toBe(70_000)
    expect((await test.trough.uploads.fileOf(url.split('/').at(-1)!)).id).toBe(file.id)
  })

  it('makes the next edition of a file, which waits; where that is gone meanwhile, a file of its own', async () => {
    const { library, bundles } = test.trough
    const file = await test.put('list-2026-10.txt', 'October')
    const send = async (text: string, before?: () => Promise<unknown>) => {
      const url = await create(text.length, `list-${text}.txt`, `,${pair('edition', file.id)}`)
      await before?.()
      return (await patch(url, 0, Buffer.from(text))).headers.get('trough-file')!
    }
    expect(await send('November')).toBe(file.id)
    expect(await library.get(file.id)).toMatchObject({ edition: 1, waits: true })
    const own = await send('December', () => library.remove({ files: [file.id], folders: [] }))
    expect(await library.get(own)).toMatchObject({ fileName: 'list-December.txt', edition: 1, deleted: null })
    expect((await begin(1, `${name('x')},${pair('edition', 'never')}`)).status).toBe(404)
    const bundle = await bundles.create({ title: 'All', folder: null, files: [own], folders: [] })
    expect((await begin(1, `${name('x')},${pair('edition', bundle.id)}`)).status).toBe(422)
  })

  it('refuses a wrong offset and keeps what it has', async () => {
    const url = await create(10)
    await patch(url, 0, Buffer.from('abcde'))
    expect((await patch(url, 3, Buffer.from('xx'))).status).toBe(409)
    expect(await offsetOf(url)).toBe(5)
  })

  it('drops a chunk whose checksum does not match (460) and takes it when it does', async () => {
    const bytes = Buffer.from('0123456789')
    const sum = (text: string) => `sha1 ${createHash('sha1').update(text).digest('base64')}`
    const url = await create(10)
    expect((await patch(url, 0, bytes.subarray(0, 5), { 'Upload-Checksum': sum('wrong') })).status).toBe(460)
    expect(await offsetOf(url)).toBe(0)
    expect((await patch(url, 0, bytes.subarray(0, 5), { 'Upload-Checksum': sum('01234') })).status).toBe(204)
    expect((await patch(url, 5, bytes.subarray(5), { 'Upload-Checksum': 'md9 xx' })).status).toBe(400)
    const last = await patch(url, 5, bytes.subarray(5), { 'Upload-Checksum': sum('56789') })
    expect((await test.trough.library.get(last.headers.get('trough-file')!)).sha256).toBe(sha256(bytes))
  })

  it('terminates: nothing of it is left', async () => {
    const url = await create(10)
    await patch(url, 0, Buffer.from('abc'))
    expect((await fetch(url, { method: 'DELETE', headers: TUS })).status).toBe(204)
    expect((await fetch(url, { method: 'HEAD', headers: TUS })).status).toBe(404)
    expect((await readdir(join(test.folder, 'incoming'))).filter(entry => entry.includes(url.split('/').at(-1)!))).toEqual([])
  })

  it.each(['../../etc/passwd', '..%2f..%2fsecrets', '%00'])('knows no upload called %s', async id => {
    expect((await fetch(`${server.url}/api/uploads/${id}`, { method: 'HEAD', headers: TUS })).status).toBe(404)
  })

  // tus 1.0, core protocol and extensions; the section is named in each.
  it.each(['HEAD', 'PATCH', 'POST', 'DELETE', 'GET'])(
    'answers %s without a version, or with another, by 412 and its own (Tus-Resumable)',
    async method => {
      const url = await create(3)
      const address = method === 'POST' ? `${server.url}/api/uploads` : url
      for (const version of [{}, { 'Tus-Resumable': '0.2.2' }] as Record<string, string>[]) {
        const response = await fetch(address, {
          method,
          headers: { ...version, 'Upload-Offset': '0', 'Upload-Length': '3', 'Content-Type': 'application/offset+octet-stream' },
          ...(method === 'PATCH' && { body: 'abc' }),
        })
        expect([response.status, response.headers.get('tus-version')]).toEqual([412, '1.0.0'])
      }
      expect(await offsetOf(url)).toBe(0)
    },
  )

  it('takes POST for another method where it is told to (X-HTTP-Method-Override)', async () => {
    const url = await create(3)
    const sent = await fetch(url, {
      method: 'POST',
      headers: { ...TUS, 'X-HTTP-Method-Override': 'PATCH', 'Upload-Offset': '0', 'Content-Type': 'application/offset+octet-stream' },
      body: 'abc',
    })
    expect([sent.status, sent.headers.get('upload-offset')]).toEqual([204, '3'])
  })

  it('takes bytes of one content type alone (PATCH: 415)', async () => {
    const url = await create(3)
    expect((await patch(url, 0, Buffer.from('abc'), { 'Content-Type': 'text/plain' })).status).toBe(415)
    expect(await offsetOf(url)).toBe(0)
  })

  it('lets nobody keep the answer to HEAD (Cache-Control)', async () => {
    expect((await fetch(await create(3), { method: 'HEAD', headers: TUS })).headers.get('cache-control')).toBe('no-store')
  })

  it('learns later how long it is (Creation, Upload-Defer-Length)', async () => {
    const response = await fetch(`${server.url}/api/uploads`, {
      method: 'POST',
      headers: { ...TUS, 'Upload-Defer-Length': '1', 'Upload-Metadata': name('later.bin') },
    })
    expect(response.status).toBe(201)
    const url = server.url + response.headers.get('location')!
    await patch(url, 0, Buffer.from('abc'))
    const head = await fetch(url, { method: 'HEAD', headers: TUS })
    expect([head.headers.get('upload-defer-length'), head.headers.get('upload-length'), head.headers.get('upload-offset')]).toEqual([
      '1',
      null,
      '3',
    ])
    const last = await patch(url, 3, Buffer.from('def'), { 'Upload-Length': '6' })
    expect((await test.trough.library.get(last.headers.get('trough-file')!)).sha256).toBe(sha256('abcdef'))
  })

  it('puts parts together (Concatenation)', async () => {
    const concat = (value: string, more: Record<string, string>) =>
      fetch(`${server.url}/api/uploads`, { method: 'POST', headers: { ...TUS, 'Upload-Concat': value, ...more } })
    const part = async (text: string) => {
      const response = await concat('partial', { 'Upload-Length': String(text.length) })
      const url = server.url + response.headers.get('location')!
      const done = await patch(url, 0, Buffer.from(text))
      // A part is no file.
      expect([response.status, done.status, done.headers.get('trough-file')]).toEqual([201, 204, null])
      expect((await fetch(url, { method: 'HEAD', headers: TUS })).headers.get('upload-concat')).toBe('partial')
      return new URL(url).pathname
    }
    const [one, two] = [await part('first, '), await part('second')]
    expect((await concat(`final;${one} ${two}`, { 'Upload-Metadata': name('x'), 'Upload-Length': '13' })).status).toBe(400)
    expect((await concat('final;/api/uploads/never', { 'Upload-Metadata': name('x') })).status).toBe(404)
    const whole = await concat(`final;${one} ${two}`, { 'Upload-Metadata': name('whole.txt') })
    expect(whole.status).toBe(201)
    expect((await test.trough.library.get(whole.headers.get('trough-file')!)).sha256).toBe(sha256('first, second'))
    const head = await fetch(server.url + whole.headers.get('location')!, { method: 'HEAD', headers: TUS })
    expect([head.headers.get('upload-concat'), head.headers.get('upload-length')]).toEqual([`final;${one} ${two}`, '13'])
  })

  it('is taken from a client of others that sends its parts side by side', async () => {
    const bytes = randomBytes(900_000)
    const { url } = await new Promise<TusUpload>((resolve, reject) => {
      const upload: TusUpload = new TusUpload(bytes, {
        endpoint: `${server.url}/api/uploads`,
        parallelUploads: 3,
        metadata: { filename: 'parallel.bin' },
        onSuccess: () => resolve(upload),
        onError: reject,
      })
      upload.start()
    })
    expect((await test.trough.uploads.fileOf(url!.split('/').at(-1)!)).sha256).toBe(sha256(bytes))
  })

  it('answers a client that comes once more to what is finished, also while that is just being done', async () => {
    const url = await create(3)
    const done = await patch(url, 0, Buffer.from('abc'))
    const again = await patch(url, 3, Buffer.alloc(0))
    expect([again.status, again.headers.get('upload-offset'), again.headers.get('trough-file')]).toEqual([
      204,
      '3',
      done.headers.get('trough-file'),
    ])
    expect((await patch(url, 0, Buffer.from('abc'))).status).toBe(409)
    const id = url.split('/').at(-1)!
    const both = await Promise.all([
      test.trough.uploads.fileOf(id),
      test.trough.uploads.fileOf(id),
      test.trough.uploads.recover(new Date()),
    ])
    expect(both[0].id).toBe(both[1].id)
  })

  it('refuses when it is announced what there is no room for, together with what was promised before', async () => {
    const folder = join(test.folder, 'tight')
    await mkdir(folder)
    const store = new IncomingStore(folder, async () => 64_000_000 + 1000)
    const announce = (id: string, size: number) => store.create(new Upload({ id, size, offset: 0 }))
    await announce('a', 600)
    await expect(announce('b', 600)).rejects.toMatchObject({ status_code: 507 })
    await announce('c', 400)
    // What has arrived is on the disk, and no promise any more.
    await store.write(Readable.from([Buffer.alloc(600)]), 'a', 0)
    await announce('d', 600)
  })

  it('takes an empty file, marked', async () => {
    const response = await fetch(`${server.url}/api/uploads`, {
      method: 'POST',
      headers: { ...TUS, 'Upload-Length': '0', 'Upload-Metadata': name('empty.pdf') },
    })
    const file = await test.trough.library.get(response.headers.get('trough-file')!)
    expect(file).toMatchObject({ size: 0, mediaType: 'application/pdf' })
    expect(file.remarks[0]).toContain('empty')
  })

  it('wants a name', async () => {
    const response = await fetch(`${server.url}/api/uploads`, { method: 'POST', headers: { ...TUS, 'Upload-Length': '5' } })
    expect(response.status).toBe(400)
    expect(await response.text()).toContain('filename')
  })

  it('is resumed by tus-js-client after cuts at random bytes, and ends with the same SHA-256', async () => {
    const bytes = randomBytes(3_000_000)
    let cuts = 0
    // A server that hangs up in the middle of the first requests.
    const flaky = await listen(async (request, response) => {
      if (request.method === 'PATCH' && cuts < 4) {
        let left = Math.floor(Math.random() * 500_000)
        request.on('data', (chunk: Buffer) => {
          left -= chunk.length
          if (left < 0) {
            cuts++
            request.destroy()
          }
        })
      }
      await test.trough.uploads.handle(request, response, owner)
    })
    const url = await new Promise<string>((resolve, reject) => {
      const upload: TusUpload = new TusUpload(bytes, {
        endpoint: `${flaky.url}/api/uploads`,
        metadata: { filename: 'cut.bin' },
        retryDelays: Array.from({ length: 12 }, () => 20),
        onError: reject,
        onSuccess: () => resolve(upload.url!),
      })
      upload.start()
    })
    await flaky.close()
    expect(cuts).toBe(4)
    expect((await test.trough.uploads.fileOf(url.split('/').at(-1)!)).sha256).toBe(sha256(bytes))
  })
})

describe('a full disk', () => {
  const tooFull = (free: number) => new IncomingStore(join(test.folder, 'incoming'), async () => free)

  it('is noticed before anything is sent', async () => {
    await expect(tooFull(100_000_000).create(new Upload({ id: 'full1', offset: 0, size: 90_000_000 }))).rejects.toMatchObject({
      status_code: 507,
    })
    await expect(access(join(test.folder, 'incoming/full1.part'))).rejects.toThrow()
  })

  it('in the middle keeps what has arrived, and the upload goes on when there is room', async () => {
    const store = tooFull(1e12)
    await store.create(new Upload({ id: 'full2', offset: 0, size: 6 }))
    const failing = Readable.from(
      (async function* () {
        yield Buffer.from('abc')
        throw Object.assign(new Error('no space left on device'), { code: 'ENOSPC' })
      })(),
    )
    await expect(store.write(failing, 'full2', 0)).rejects.toMatchObject({ status_code: 507 })
    expect((await store.getUpload('full2')).offset).toBe(3)
    expect(await store.write(Readable.from([Buffer.from('def')]), 'full2', 3)).toBe(6)
    expect((await store.complete((await store.record('full2'))!)).whole.sha256).toBe(sha256('abcdef'))
    await store.remove('full2')
  })
})

it('a restarted store hashes again what is on disk', async () => {
  const folder = join(test.folder, 'incoming')
  const before = new IncomingStore(folder, async () => 1e12)
  await before.create(new Upload({ id: 'again', offset: 0, size: 6 }))
  await before.write(Readable.from([Buffer.from('abc')]), 'again', 0)
  const after = new IncomingStore(folder, async () => 1e12)
  expect((await after.getUpload('again')).offset).toBe(3)
  await after.write(Readable.from([Buffer.from('def')]), 'again', 3)
  expect((await after.complete((await after.record('again'))!)).whole.sha256).toBe(sha256('abcdef'))
  // What is whole when the process ends is handed in by the next one.
  await test.trough.uploads.recover(new Date(Date.now() + 1000))
  expect((await test.trough.library.fileOfUpload('again'))!.sha256).toBe(sha256('abcdef'))
})

it('old uploads expire', async () => {
  const store = new IncomingStore(join(test.folder, 'incoming'), async () => 1e12)
  await store.create(new Upload({ id: 'old', offset: 0, size: 6 }))
  const days = (count: number) => Date.now() + count * 24 * 60 * 60 * 1000
  await store.deleteExpired(days(6))
  expect((await store.getUpload('old')).offset).toBe(0)
  await store.deleteExpired(days(8))
  await expect(store.getUpload('old')).rejects.toMatchObject({ status_code: 404 })
})

describe('what a fault can leave behind', () => {
  const folder = () => join(test.folder, 'incoming')
  const left = async (id: string) => (await readdir(folder())).filter(name => name.startsWith(id))

  it('a note without bytes, or bytes without a note, does not keep Trough from starting, and is cleared away', async () => {
    const record = { id: 'half1', size: 5, metadata: { filename: 'a' }, created: new Date().toISOString() }
    await writeFile(join(folder(), 'half2.part'), 'bytes')
    await writeFile(join(folder(), 'half3.json.new'), '{')
    // Nothing that came after the start is touched: it may be in the making.
    await test.trough.uploads.recover(new Date(0))
    expect(await left('half')).toHaveLength(2)
    await writeFile(join(folder(), 'half1.json'), JSON.stringify(record))
    await test.trough.uploads.recover(new Date(Date.now() + 1000))
    for (const id of ['half1', 'half2', 'half3']) expect(await left(id), id).toEqual([])
  })

  it('one upload that cannot be handed in does not keep the others from it', async () => {
    const store = new IncomingStore(folder(), async () => 1e12)
    for (const id of ['stuck', 'whole']) {
      await store.create(new Upload({ id, offset: 0, size: 3, metadata: { filename: `${id}.txt` } }))
      await store.write(Readable.from([Buffer.from(id.slice(0, 3))]), id, 0)
    }
    // Its note says that all is there, but a folder stands where the bytes should be.
    await rm(store.partOf('stuck'))
    await mkdir(store.partOf('stuck'))
    await writeFile(
      join(folder(), 'stuck.json'),
      JSON.stringify({ ...(await store.record('stuck')), whole: { sha256: 'a'.repeat(64), crc32: 0 } }),
    )
    await expect(test.trough.uploads.recover(new Date())).rejects.toThrow()
    expect((await test.trough.library.fileOfUpload('whole'))!.sha256).toBe(sha256('who'))
    await rm(store.partOf('stuck'), { recursive: true })
    await rm(join(folder(), 'stuck.json'))
  })
})
