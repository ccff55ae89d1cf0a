import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FileItem } from '../../../core/files/fileItem'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
  await test.trough.reading.start()
})
afterAll(() => test.close())

const OLD = 'Price list\nStoneware 12.40\nEarthenware 9.80\n'
const NEW = 'Price list\nStoneware 12.90\nEarthenware 9.80\n'
async function waitingEdition(): Promise<FileItem> {
  const file = await test.put('price-list-2026-10.txt', OLD)
  await test.putInto('price-list-2026-11.txt', NEW, { editionOf: file.id, waits: true })
  return test.trough.library.get(file.id)
}

describe('an edition that waits', () => {
  it('is there, but visitors get the earlier one until it is shown to them', async () => {
    const { library } = test.trough
    const file = await waitingEdition()
    expect(file).toMatchObject({ edition: 1, fileName: 'price-list-2026-10.txt', waits: true })
    expect((await library.editions(file.id)).map(({ number, fileName }) => [number, fileName])).toEqual([
      [1, 'price-list-2026-10.txt'],
      [2, 'price-list-2026-11.txt'],
    ])
    expect(await library.showEdition(file.id, 2)).toMatchObject({
      edition: 2,
      fileName: 'price-list-2026-11.txt',
      handle: file.handle,
      waits: false,
    })
  })

  it('is held against the other: what each is, what its words changed, and what speaks against it', async () => {
    const { editions, reading } = test.trough
    const file = await waitingEdition()
    await reading.idle()
    expect(await editions.compare(file.id, 2)).toMatchObject({
      reading: false,
      doubts: [],
      now: { number: 1, tag: 'TXT', size: OLD.length },
      next: { number: 2, fileName: 'price-list-2026-11.txt' },
      texts: { total: 1, changes: [{ before: ['Stoneware 12.40'], after: ['Stoneware 12.90'] }] },
    })
    await test.putInto('other-2025.csv', 'a,b', { editionOf: file.id, waits: true })
    await reading.idle()
    expect((await editions.compare(file.id, 3)).doubts).toEqual(['other-type', 'far-smaller', 'little-in-common', 'older'])
    await test.putInto('again.txt', OLD, { editionOf: file.id, waits: true })
    expect((await editions.compare(file.id, 4)).doubts).toEqual(['same-bytes'])
    await expect(editions.compare(file.id, 5)).rejects.toMatchObject({ status: 404 })
  })

  it('of two that put one on the same file at once each has its own number, and nothing is lost', async () => {
    const { library } = test.trough
    const file = await test.put('shared.txt', 'first')
    await Promise.all(['from one', 'from the other'].map(text => test.putInto('shared.txt', text, { editionOf: file.id, waits: true })))
    expect((await library.editions(file.id)).map(({ number }) => number)).toEqual([1, 2, 3])
    // Both show theirs: the last one to do so has it, whole.
    await Promise.all([library.showEdition(file.id, 2), library.showEdition(file.id, 3)])
    const { edition, sha256 } = await library.get(file.id)
    expect((await library.editions(file.id)).find(({ number }) => number === edition)!.sha256).toBe(sha256)
  })

  it('is said something of, by whoever put it in, and is given out by its number or no longer', async () => {
    const { library, editions } = test.trough
    const file = await test.putInto('noted.txt', 'first', { by: 'owner@marlpit.example' })
    await test.putInto('noted.txt', 'second', { editionOf: file.id })
    await editions.change(file.id, 1, { note: 'Before the new clays', pinned: true })
    expect((await library.editions(file.id))[0]).toMatchObject({
      note: 'Before the new clays',
      pinned: true,
      withdrawn: false,
      by: 'owner@marlpit.example',
    })
    await editions.change(file.id, 1, { withdrawn: true })
    await expect(library.showEdition(file.id, 1)).rejects.toThrow('Edition 1 was withdrawn.')
    await editions.change(file.id, 1, { withdrawn: false })
    expect((await library.showEdition(file.id, 1)).edition).toBe(1)
    await expect(editions.change(file.id, 9, { note: 'x' })).rejects.toMatchObject({ status: 404 })
  })

  it('that is withdrawn while it is the current one is in no bundle, on no shelf and in no page, until it is given out again', async () => {
    const { library, editions, bundles, shelves } = test.trough
    const file = await test.put('member.txt', 'member')
    const bundle = await bundles.create({ title: 'Pack', folder: null, files: [file.id], folders: [] })
    const there = async () => [
      (await bundles.details(bundle.id)).total,
      (await shelves.listed({ kind: 'files', ids: [file.id] })).files.length,
      (await library.get(file.id)).withdrawn,
    ]
    expect(await there()).toEqual([1, 1, false])
    await editions.change(file.id, 1, { withdrawn: true })
    expect(await there()).toEqual([0, 0, true])
    // Nor is it given out by copying it.
    const { files: copies } = await library.copy({ files: [file.id], folders: [] }, null)
    expect(await library.byId(copies)).toMatchObject([{ withdrawn: true }])
    await editions.change(file.id, 1, { withdrawn: false })
    expect(await there()).toEqual([1, 1, false])
  })

  it('is thrown away, or made a file of its own; the one visitors get is neither', async () => {
    const { editions, library } = test.trough
    const file = await waitingEdition()
    await editions.discard(file.id, 2)
    expect((await library.editions(file.id)).map(({ number }) => number)).toEqual([1])
    await expect(editions.discard(file.id, 1)).rejects.toMatchObject({ status: 409 })
    await test.putInto('joining-form.txt', 'Name', { editionOf: file.id, waits: true })
    const own = await editions.split(file.id, 2)
    expect(own).toMatchObject({ title: 'Joining form', fileName: 'joining-form.txt', edition: 1, folder: file.folder })
    expect(own.id).not.toBe(file.id)
    expect((await library.editions(file.id)).map(({ number }) => number)).toEqual([1])
    await expect(editions.split(file.id, 1)).rejects.toMatchObject({ status: 409 })
  })
})
