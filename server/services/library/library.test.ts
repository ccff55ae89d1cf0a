import { access, readFile } from 'node:fs/promises'
import { zipSync } from 'fflate'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fileQuerySchema } from '../../../core/files/query'
import { Problem } from '../../../core/problem'
import { button, linkMark, pageOf, words } from '../../../core/testing/pages'
import { openTestTrough, sha256, type TestTrough } from '../../testing/harness'

const PDF = '%PDF-1.7\n1 0 obj\n<<>>\nendobj\ntrailer\n<<>>\n%%EOF\n'
let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const list = (query: object = {}) => test.trough.library.list(fileQuerySchema.parse(query))
const storedAt = (hash: string) => join(test.folder, 'store/sha256', hash.slice(0, 2), hash.slice(2, 4), hash)

describe('coming in', () => {
  it('gives two files of one name handles of their own', async () => {
    const [a, b] = [await test.put('Price list.pdf', `${PDF}a`), await test.put('Price list.pdf', `${PDF}b`)]
    expect([a.handle, b.handle]).toEqual(['price-list.pdf', 'price-list-2.pdf'])
    expect(a).toMatchObject({ title: 'Price list', mediaType: 'application/pdf', edition: 1, folder: null, remarks: [] })
  })

  it('stores the same bytes once and names the file that has them', async () => {
    const [a, b] = [await test.put('one.pdf', `${PDF}same`), await test.put('two.pdf', `${PDF}same`)]
    expect(b.sha256).toBe(a.sha256)
    expect((await test.trough.library.twins(b)).map(twin => twin.id)).toEqual([a.id])
    expect(await readFile(storedAt(a.sha256), 'utf8')).toBe(`${PDF}same`)
  })

  it.each([
    ['page.pdf', '<!DOCTYPE html><html><body>', 'text/html', true],
    ['picture.svg', '<?xml version="1.0"?>\n<svg xmlns="http://www.w3.org/2000/svg"/>', 'image/svg+xml', false],
    ['table.csv', 'a,b\n1,2\n', 'text/csv', false],
    ['notes.txt', 'plain words', 'text/plain', false],
    ['picture.png', 'plain words', 'text/plain', true],
    ['data.pdf', Buffer.from([0, 1, 2, 3, 255, 254]), 'application/octet-stream', true],
    ['real.bin', PDF, 'application/pdf', false],
    ['plain.zip', Buffer.from(zipSync({ 'a.txt': new Uint8Array([65]) })), 'application/zip', false],
  ])('reads the type of %s from its bytes', async (name, bytes, mediaType, remarked) => {
    const file = await test.put(name, bytes)
    expect(file.mediaType).toBe(mediaType)
    expect(file.remarks.length > 0).toBe(remarked)
  })

  it.each(['../../../tmp/x.pdf', 'a\0.pdf', '....', `${'n'.repeat(300)}.pdf`, '\u202Efdp.exe', '🏺.pdf', ''])(
    'survives the name %j',
    async name => {
      const file = await test.put(name, `${PDF}${name}`)
      expect(file.fileName).not.toMatch(/[/\\\0\u202E]/)
      expect(Buffer.byteLength(file.fileName)).toBeLessThanOrEqual(255)
      expect(await readFile(storedAt(file.sha256), 'utf8')).toContain('%PDF')
    },
  )
})

describe('finding', () => {
  it('goes by part of title, file name or handle, and takes % and _ literally', async () => {
    const file = await test.put('Needle_100%.pdf', `${PDF}needle`)
    expect((await list({ q: 'EEDLE' })).items.map(item => item.id)).toEqual([file.id])
    expect((await list({ q: '_100%' })).items.map(item => item.id)).toEqual([file.id])
    expect((await list({ q: '%edle' })).total).toBe(0)
  })

  it('is newest first, a stretch at a time, with the total', async () => {
    const newest = await test.put('newest.pdf', `${PDF}newest`)
    const page = await list({ limit: 1 })
    expect(page.items.map(item => item.id)).toEqual([newest.id])
    expect(page.total).toBeGreaterThan(1)
    expect((await list({ from: 1, limit: 1 })).items[0]!.id).not.toBe(newest.id)
    expect((await list({ type: 'picture' })).items.every(item => item.family === 'picture')).toBe(true)
  })
})

describe('changing', () => {
  it('keeps old handles for ever: nobody else gets them', async () => {
    const a = await test.put('first.pdf', `${PDF}first`)
    await test.trough.library.change(a.id, { handle: 'renamed.pdf', title: 'Renamed' })
    expect((await test.put('first.pdf', `${PDF}other`)).handle).toBe('first-2.pdf')
    const b = await test.put('second.pdf', `${PDF}second`)
    await expect(test.trough.library.change(b.id, { handle: 'first.pdf' })).rejects.toMatchObject({ status: 409 })
    await expect(test.trough.library.change(b.id, { handle: 'renamed.pdf' })).rejects.toMatchObject({ status: 409 })
    // Its own former handle may come back.
    expect((await test.trough.library.change(a.id, { handle: 'first.pdf' })).handle).toBe('first.pdf')
  })
})

describe('deleting', () => {
  async function usedFile(name: string) {
    const file = await test.put(name, PDF + name)
    const page = await test.trough.pages.create({ title: `Page of ${name}` })
    const target = { kind: 'file' as const, id: file.id }
    const draft = pageOf(button({ target }), words('the list', linkMark('bbbbbbbbbb', file.id)))
    await test.trough.pages.saveDraft(page.id, { title: page.title, draft, revision: page.revision })
    await test.trough.pages.publish(page.id)
    return { file, page }
  }

  it('goes to the bin and comes back', async () => {
    const file = await test.put('unused.pdf', `${PDF}unused`)
    expect((await test.trough.library.remove({ files: [file.id], folders: [] })).files).toEqual([file.id])
    expect((await list({ q: 'unused' })).total).toBe(0)
    expect((await list({ q: 'unused', bin: 'true' })).total).toBe(1)
    expect((await test.trough.library.restore({ files: [file.id], folders: [] })).files).toEqual([file.id])
    expect((await list({ q: 'unused' })).total).toBe(1)
  })

  it('of a file in use is stopped, with the places', async () => {
    const { file } = await usedFile('used.pdf')
    const problem = (await test.trough.library.remove({ files: [file.id], folders: [] }).catch((error: unknown) => error)) as Problem
    expect(problem.status).toBe(409)
    expect(problem.extra.uses).toMatchObject([
      { kind: 'button', draft: true, live: true },
      { kind: 'link', label: 'the list' },
    ])
    expect((await test.trough.library.get(file.id)).deleted).toBeNull()
  })

  it('can put another file in its place, live pages too', async () => {
    const { file, page } = await usedFile('old.pdf')
    const next = await test.put('next.pdf', `${PDF}next`)
    await test.trough.library.remove({ files: [file.id], folders: [] }, { replaceBy: next.id })
    expect((await test.trough.library.uses(next.id)).map(use => use.live)).toEqual([true, true])
    expect(JSON.stringify(await test.trough.pages.live(page.slug))).not.toContain(file.id)
    expect((await test.trough.pages.get(page.id)).waiting).toBe(false)
  })

  it('can take its buttons off', async () => {
    const { file, page } = await usedFile('off.pdf')
    await test.trough.library.remove({ files: [file.id], folders: [] }, { takeOff: true })
    expect(await test.trough.library.uses(file.id)).toEqual([])
    expect(JSON.stringify(await test.trough.pages.live(page.slug))).toContain('the list')
  })

  it('for good after 30 days frees the bytes nothing else needs, and never the handle', async () => {
    const [gone, twin] = [await test.put('gone.pdf', `${PDF}gone`), await test.put('twin.pdf', `${PDF}gone`)]
    const lonely = await test.put('lonely.pdf', `${PDF}lonely`)
    await test.trough.library.remove({ files: [gone.id], folders: [] })
    await test.trough.library.remove({ files: [lonely.id], folders: [] })
    await test.trough.library.emptyOldBin(new Date(Date.now() - 24 * 60 * 60 * 1000))
    expect((await test.trough.library.get(gone.id)).id).toBe(gone.id)
    await test.trough.library.emptyOldBin(new Date(Date.now() + 24 * 60 * 60 * 1000))
    await expect(test.trough.library.get(gone.id)).rejects.toMatchObject({ status: 404 })
    await test.trough.library.collectBytes()
    await expect(access(storedAt(lonely.sha256))).rejects.toThrow()
    expect(sha256(await readFile(storedAt(twin.sha256)))).toBe(twin.sha256)
    expect((await test.put('gone.pdf', `${PDF}again`)).handle).toBe('gone-2.pdf')
  })
})
