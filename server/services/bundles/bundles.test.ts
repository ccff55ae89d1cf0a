import { execFile, execFileSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fileQuerySchema } from '../../../core/files/query'
import type { BundleEntry } from '../../../core/bundle/bundleEntry'
import type { FileItem } from '../../../core/files/fileItem'
import { listen, openTestTrough, type TestTrough } from '../../testing/harness'
import { answerFile } from '../../visitors/file'

let test: TestTrough
let server: Awaited<ReturnType<typeof listen>>
beforeAll(async () => {
  test = await openTestTrough()
  server = await listen((incoming, response) => {
    const { pathname, search } = new URL(incoming.url!, 'http://localhost')
    if (pathname.startsWith('/zips/'))
      return test.trough.delivery.showZip(incoming, response, test.trough.zipping.open(pathname.slice('/zips/'.length)))
    return answerFile(test.trough, incoming, response, pathname, search.slice(1))
  })
})
afterAll(async () => {
  await server.close()
  await test.close()
})

const get = (path: string, headers: Record<string, string> = {}, method = 'GET') =>
  fetch(`${server.url}/${path}`, { method, headers: { 'User-Agent': 'Mozilla/5.0 Firefox/140.0', ...headers } })
const body = async (response: Response) => Buffer.from(await response.arrayBuffer())
const run = promisify(execFile)
const namesIn = (bytes: Buffer) => Object.keys(unzipSync(bytes))
const textEntry = (id: string, name: string, text: string): BundleEntry => ({ id, kind: 'text', within: '', name, body: text })

async function bundleOf(files: FileItem[], title: string, folders: string[] = []): Promise<FileItem> {
  return test.trough.bundles.create({ title, folder: null, files: files.map(file => file.id), folders })
}

describe('a bundle', () => {
  it('is a file of the library, with handle, size and count, and is downloaded like any', async () => {
    const bundle = await bundleOf([await test.put('one.pdf', '%PDF-1.7 one'), await test.put('zwei ä.txt', 'zwei')], 'Studio pack')
    expect(bundle).toMatchObject({
      bundle: true,
      handle: 'studio-pack.zip',
      fileName: 'Studio pack.zip',
      mediaType: 'application/zip',
      tag: 'ZIP',
      facts: { entries: 2 },
      sha256: '',
    })
    const response = await get('files/studio-pack.zip')
    const bytes = await body(response)
    expect(Object.fromEntries(response.headers)).toMatchObject({
      'content-type': 'application/zip',
      'content-length': String(bundle.size),
      'accept-ranges': 'bytes',
      'content-disposition': 'attachment; filename="Studio pack.zip"',
    })
    expect(bytes.length).toBe(bundle.size)
    expect(Object.entries(unzipSync(bytes)).map(([name, data]) => [name, Buffer.from(data).toString()])).toEqual([
      ['one.pdf', '%PDF-1.7 one'],
      ['zwei ä.txt', 'zwei'],
    ])
    await expect
      .poll(async () => {
        await test.trough.tally.flush()
        return (await test.trough.library.get(bundle.id)).downloads
      })
      .toBe(1)
    const head = await get('files/studio-pack.zip', {}, 'HEAD')
    expect([head.status, head.headers.get('content-length'), (await body(head)).length]).toEqual([200, String(bundle.size), 0])
    expect((await get('files/studio-pack.zip', { 'If-None-Match': head.headers.get('etag')! })).status).toBe(304)
    const { items } = await test.trough.library.list(fileQuerySchema.parse({ q: 'studio pack', limit: 5 }))
    expect(items[0]).toMatchObject({ id: bundle.id, size: bundle.size })
  })

  it('gives any range, several at once too, equal to the slices of the whole', async () => {
    const bundle = await bundleOf(
      await Promise.all([1, 90_000, 0, 3_000_000, 5].map((size, index) => test.put(`part ${index}.bin`, randomBytes(size)))),
      'Parts',
    )
    const whole = await body(await get(`files/${bundle.handle}`))
    for (let round = 0; round < 60; round++) {
      const [start, end] = [Math.random(), Math.random()].map(share => Math.floor(share * whole.length)).sort((a, b) => a - b) as [
        number,
        number,
      ]
      const response = await get(`files/${bundle.handle}`, { Range: `bytes=${start}-${end}` })
      expect([response.status, (await body(response)).equals(whole.subarray(start, end + 1))]).toEqual([206, true])
    }
    const several = await get(`files/${bundle.handle}`, { Range: 'bytes=0-99,89990-90400,-30' })
    const text = (await body(several)).toString('latin1')
    for (const slice of [whole.subarray(0, 100), whole.subarray(89_990, 90_401), whole.subarray(-30)])
      expect(text).toContain(slice.toString('latin1'))
    expect(text.length).toBe(Number(several.headers.get('content-length')))
  })

  it("follows what is in it: a new edition, a new name, and a folder's files as they come and go", async () => {
    const { library, bundles } = test.trough
    const folder = await library.folders.create({ name: 'Sheets', parent: null })
    const below = await library.folders.create({ name: 'Old', parent: folder.id })
    const sheet = await test.putInto('sheet.txt', 'first', { folder: folder.id })
    const bundle = await bundleOf([sheet], 'Follows', [folder.id])
    const names = async () => namesIn(await body(await get(`files/${bundle.handle}`)))
    expect(await names()).toEqual(['sheet.txt', 'Sheets/sheet.txt'])
    const before = (await get(`files/${bundle.handle}`, {}, 'HEAD')).headers.get('etag')!

    await test.putInto('ignored.txt', 'second, longer', { editionOf: sheet.id })
    const after = await get(`files/${bundle.handle}`, { 'If-Range': before, 'Range': 'bytes=10-' })
    // A changed bundle is sent anew from its start (RFC 9110, section 13.1.5).
    expect([after.status, after.headers.get('etag') === before]).toEqual([200, false])
    const deep = await test.putInto('deep.txt', 'deep', { folder: below.id })
    expect(await names()).toEqual(['ignored.txt', 'Sheets/Old/deep.txt', 'Sheets/ignored.txt'])
    expect((await bundles.holding(deep.id)).map(item => item.id)).toEqual([bundle.id])
    await library.folders.change(below.id, { name: 'Archive' })
    await library.change(sheet.id, { fileName: 'renamed.txt' })
    expect(await names()).toEqual(['renamed.txt', 'Sheets/Archive/deep.txt', 'Sheets/renamed.txt'])
    await library.move({ files: [deep.id], folders: [], to: null })
    await library.remove({ files: [sheet.id], folders: [] }, { despite: true })
    expect(await names()).toEqual([])
    expect((await bundles.details(bundle.id)).now[(await bundles.details(bundle.id)).entries[0]!.id]).toMatchObject({ gone: true })
    await library.restore({ files: [sheet.id], folders: [] })
    expect(await names()).toEqual(['renamed.txt', 'Sheets/renamed.txt'])
    expect((await library.get(bundle.id)).size).toBe(
      Number((await get(`files/${bundle.handle}`, {}, 'HEAD')).headers.get('content-length')),
    )
  })

  it('is ordered, renamed inside, and given texts; two windows notice each other', async () => {
    const { bundles } = test.trough
    const bundle = await bundleOf([await test.put('a.txt', 'A'), await test.put('b.txt', 'B')], 'Composed')
    const {
      entries: [a, b],
      revision,
    } = await bundles.details(bundle.id)
    const changed = await bundles.change(bundle.id, {
      revision,
      entries: [
        textEntry('readme', 'READ ME.txt', 'One\nTwo'),
        { ...b!, within: 'Inner' } as BundleEntry,
        { ...a!, name: 'first.txt' } as BundleEntry,
      ],
    })
    expect(changed.members.map(member => member.path)).toEqual(['READ ME.txt', 'Inner/b.txt', 'first.txt'])
    const bytes = await body(await get(`files/${bundle.handle}`))
    expect(Buffer.from(unzipSync(bytes)['READ ME.txt']!).toString()).toBe('One\r\nTwo')
    await expect(bundles.change(bundle.id, { revision, entries: [] })).rejects.toMatchObject({ status: 409 })
    expect((await bundles.add(bundle.id, { files: [(await test.put('c.txt', 'C')).id], folders: [] })).total).toBe(4)
    await expect(bundles.add(bundle.id, { files: [bundle.id], folders: [] })).rejects.toMatchObject({ status: 422 })
    await expect(test.putInto('x.txt', 'x', { editionOf: bundle.id })).rejects.toMatchObject({ status: 422 })
  })

  it('is copied, goes to the bin and comes back', async () => {
    const { library } = test.trough
    const bundle = await bundleOf([await test.put('inner.txt', 'inner')], 'Goes')
    const {
      files: [copy],
    } = await library.copy({ files: [bundle.id], folders: [] }, null)
    const { handle } = await library.get(copy!)
    expect(namesIn(await body(await get(`files/${handle}`)))).toEqual(['inner.txt'])
    await library.remove({ files: [bundle.id], folders: [] })
    expect((await get(`files/${bundle.handle}`)).status).toBe(410)
    await library.restore({ files: [bundle.id], folders: [] })
    expect((await get(`files/${bundle.handle}`)).status).toBe(200)
  })

  it('may be empty, and is then an empty zip (APPNOTE.TXT 4.3.1: only an end record)', async () => {
    const bundle = await bundleOf([], 'Empty')
    expect((await body(await get(`files/${bundle.handle}`))).length).toBe(22)
    const path = join(test.folder, 'empty.zip')
    await writeFile(path, await body(await get(`files/${bundle.handle}`)))
    expect(
      execFileSync('python3', ['-c', 'import sys, zipfile; print(zipfile.ZipFile(sys.argv[1]).namelist())', path], {
        encoding: 'utf8',
      }).trim(),
    ).toBe('[]')
  })

  it("breaks off rather than sending a member's bytes short, and refuses before the first where it can", async () => {
    const [whole, short] = [await test.put('whole.bin', randomBytes(2_000_000)), await test.put('short.bin', randomBytes(2_000_000))]
    const bundle = await bundleOf([whole, short], 'Damaged')
    const path = join(test.folder, 'store/sha256', short.sha256.slice(0, 2), short.sha256.slice(2, 4), short.sha256)
    await writeFile(path, (await readFile(path)).subarray(0, 1000))
    await expect(get(`files/${bundle.handle}`).then(body)).rejects.toThrow()
    const direct = await get(`files/${short.handle}`)
    expect([direct.status, await direct.text()]).toEqual([500, `The stored bytes ${short.sha256} are cut off after 1000 bytes.`])
  })

  it('is checked before it is sent where its owner chose so: damaged bytes never leave', async () => {
    const [whole, damaged] = [await test.put('checked.bin', randomBytes(300_000)), await test.put('bad.bin', randomBytes(300_000))]
    const bundle = await bundleOf([whole, damaged], 'Checked')
    const path = join(test.folder, 'store/sha256', damaged.sha256.slice(0, 2), damaged.sha256.slice(2, 4), damaged.sha256)
    const bytes = await readFile(path)
    bytes[150_000]! ^= 1
    await writeFile(path, bytes)
    await test.trough.checks.set({ check: true })
    const status = async (handle: string, headers = {}) => (await get(`files/${handle}`, headers)).status
    expect([await status(whole.handle), await status(damaged.handle), await status(bundle.handle)]).toEqual([200, 500, 500])
    // What lies in front of the damaged member is whole.
    expect(await status(bundle.handle, { Range: 'bytes=0-299999' })).toBe(206)
    await test.trough.checks.set({ check: false })
    expect(await status(damaged.handle)).toBe(200)
  })

  it('goes on where curl left off, and is put together from many connections (aria2)', async () => {
    const bundle = await bundleOf(
      await Promise.all(Array.from({ length: 6 }, (_, index) => test.put(`file ${index}.bin`, randomBytes(1_500_000)))),
      'Resumed',
    )
    const [address, path] = [`${server.url}/files/${bundle.handle}`, join(test.folder, 'resumed.zip')]
    const whole = await body(await get(`files/${bundle.handle}`))
    await writeFile(path, whole.subarray(0, 3_333_333))
    await run('curl', ['-sS', '-C', '-', '-o', path, address])
    expect((await readFile(path)).equals(whole)).toBe(true)
    await run('aria2c', ['-q', '-x8', '-s8', '-k1M', '--allow-overwrite=true', '-d', test.folder, '-o', 'many.zip', address])
    expect((await readFile(join(test.folder, 'many.zip'))).equals(whole)).toBe(true)
  })
})

describe('a zip of a selection', () => {
  it('has the folders chosen, every file once, and what is in bundles; with ranges', async () => {
    const { library, zipping } = test.trough
    const { id } = await library.folders.create({ name: 'Zipped', parent: null })
    const inner = await library.folders.create({ name: 'Inner', parent: id })
    const a = await test.putInto('a.txt', 'A', { folder: id })
    await test.putInto('b.txt', 'BB', { folder: inner.id })
    const loose = await test.put('a.txt', 'other A')
    const bundle = await bundleOf([loose], 'Within')
    const prepared = await zipping.prepare({ files: [loose.id, bundle.id], folders: [id] })
    const bytes = await body(await get(`zips/${prepared.id}`))
    expect([bytes.length, prepared.files]).toEqual([prepared.size, 4])
    expect(namesIn(bytes).sort()).toEqual(['Within/a.txt', 'Zipped/Inner/b.txt', 'Zipped/a.txt', 'a.txt'])
    expect((await body(await get(`zips/${prepared.id}`, { Range: 'bytes=-40' }))).equals(bytes.subarray(-40))).toBe(true)
    expect((await zipping.prepare({ files: [a.id], folders: [id] })).files).toBe(2)
    await expect(
      zipping.prepare({ files: [], folders: [(await library.folders.create({ name: 'Bare', parent: null })).id] }),
    ).rejects.toMatchObject({ status: 422 })
    expect(() => zipping.open('unknown')).toThrow(/no such zip/)
  })
})

describe('deleting a file that is in a bundle', () => {
  const remove = (id: string, way = {}) => test.trough.library.remove({ files: [id], folders: [] }, way)
  const contents = async (bundle: FileItem) => namesIn(await body(await get(`files/${bundle.handle}`))).sort()
  async function held(name: string) {
    const [file, other] = [await test.put(`${name}.txt`, name), await test.put(`${name} stays.txt`, `${name} stays`)]
    return { file, other, bundle: await bundleOf([file, other], `Pack of ${name}`) }
  }

  it('is stopped, with the bundle; not where the bundle goes, too', async () => {
    const { file, bundle } = await held('stopped')
    await expect(remove(file.id)).rejects.toMatchObject({
      status: 409,
      extra: { uses: [], bundles: [{ bundleId: bundle.id, bundleTitle: 'Pack of stopped', fileId: file.id }] },
    })
    await test.trough.library.remove({ files: [file.id, bundle.id], folders: [] })
    await test.trough.library.restore({ files: [file.id, bundle.id], folders: [] })
    expect(await contents(bundle)).toEqual(['stopped stays.txt', 'stopped.txt'])
  })

  it('takes it out, puts another in its place, or leaves it out until it is restored', async () => {
    const out = await held('taken')
    await remove(out.file.id, { takeOff: true })
    expect(await contents(out.bundle)).toEqual(['taken stays.txt'])
    expect((await test.trough.bundles.details(out.bundle.id)).entries).toHaveLength(1)

    const replaced = await held('replaced')
    const next = await test.put('next.txt', 'next one')
    await expect(remove(replaced.file.id, { replaceBy: out.bundle.id })).rejects.toMatchObject({ status: 422 })
    await remove(replaced.file.id, { replaceBy: next.id })
    expect(await contents(replaced.bundle)).toEqual(['next.txt', 'replaced stays.txt'])

    const despite = await held('despite')
    await remove(despite.file.id, { despite: true })
    expect(await contents(despite.bundle)).toEqual(['despite stays.txt'])
    await test.trough.library.restore({ files: [despite.file.id], folders: [] })
    expect(await contents(despite.bundle)).toEqual(['despite stays.txt', 'despite.txt'])
  })

  it('holds back a folder that a bundle takes in whole', async () => {
    const folder = await test.trough.library.folders.create({ name: 'Whole', parent: null })
    await test.putInto('inside.txt', 'inside', { folder: folder.id })
    const bundle = await bundleOf([], 'Whole pack', [folder.id])
    await expect(test.trough.library.remove({ files: [], folders: [folder.id] })).rejects.toMatchObject({
      status: 409,
      extra: { bundles: [{ bundleId: bundle.id, folderId: folder.id }] },
    })
  })
})
