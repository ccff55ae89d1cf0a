import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FileItem } from '../../../core/files/item'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
  test.trough.reading.start()
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
    expect((await library.editions(file.id)).map(({ number, fileName }) => [number, fileName])).toEqual([[1, 'price-list-2026-10.txt'], [2, 'price-list-2026-11.txt']])
    expect(await library.showEdition(file.id, 2)).toMatchObject({ edition: 2, fileName: 'price-list-2026-11.txt', handle: file.handle, waits: false })
  })

  it('is held against the other: what each is, what its words changed, and what speaks against it', async () => {
    const { editions, reading } = test.trough
    const file = await waitingEdition()
    await reading.idle()
    expect(await editions.compare(file.id, 2)).toMatchObject({
      reading: false, doubts: [], now: { number: 1, tag: 'TXT', size: OLD.length }, next: { number: 2, fileName: 'price-list-2026-11.txt' },
      texts: { total: 1, changes: [{ before: ['Stoneware 12.40'], after: ['Stoneware 12.90'] }] },
    })
    await test.putInto('other-2025.csv', 'a,b', { editionOf: file.id, waits: true })
    await reading.idle()
    expect((await editions.compare(file.id, 3)).doubts).toEqual(['other-type', 'far-smaller', 'little-in-common', 'older'])
    await test.putInto('again.txt', OLD, { editionOf: file.id, waits: true })
    expect((await editions.compare(file.id, 4)).doubts).toEqual(['same-bytes'])
    await expect(editions.compare(file.id, 5)).rejects.toMatchObject({ status: 404 })
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
