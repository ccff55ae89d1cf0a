import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FileItem } from '../../../core/files/fileItem'
import { oldAddressQuerySchema } from '../../../core/oldAddresses/oldAddressItem'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
let list: FileItem
beforeAll(async () => {
  test = await openTestTrough()
  list = await test.put('price-list-2026-11.txt', 'prices')
})
afterAll(() => test.close())

const old = () => test.trough.oldAddresses
const shown = async (given: object = {}) => old().list(oldAddressQuerySchema.parse(given))

describe('old addresses', () => {
  it('come in from a list, lead to what took their place, and are suggested a place by their names', async () => {
    expect(await old().bring('/downloads/price_list_2024.txt\n/about.html\nnonsense\n')).toEqual({ read: 2, added: 2, left: 1 })
    const { items, open, led } = await shown()
    expect([open, led, items.map(({ path, suggestion }) => [path, suggestion?.title])]).toEqual([
      2,
      0,
      [
        ['/about.html', undefined],
        ['/downloads/price_list_2024.txt', list.title],
      ],
    ])
    expect(await old().find('/downloads/price_list_2024.txt')).toBeUndefined()
    expect(await old().takeSuggestions()).toEqual(['/downloads/price_list_2024.txt'])
    expect(await old().find('/downloads/price_list_2024.txt?from=mail')).toBe('/files/price-list-2026-11.txt')
    // Where it leads is known by identity: it follows when the address of that changes.
    await test.trough.library.change(list.id, { handle: 'prices.txt' })
    expect(await old().find('/downloads/price_list_2024.txt')).toBe('/files/prices.txt')
    // Brought in again, it goes on leading where it leads.
    expect(await old().bring('http://old.example/downloads/price_list_2024.txt\n')).toEqual({ read: 1, added: 0, left: 0 })
    expect(await old().find('/downloads/price_list_2024.txt')).toBe('/files/prices.txt')
  })

  it('that lead nowhere yet are counted when they are asked for, and stand first', async () => {
    await old().bring('/a-thing.pdf\n/zebra.pdf\n')
    for (let times = 0; times < 3; times++) await old().find('/zebra.pdf')
    // Nobody asks for what no list named: it is not counted.
    await old().find('/never-heard-of.pdf')
    await expect.poll(async () => (await shown()).items[0]).toMatchObject({ path: '/zebra.pdf', missed: 3 })
    expect((await shown()).missed).toBe(1)
    expect((await shown({ q: 'zeb' })).items).toHaveLength(1)
    await old().forget('/zebra.pdf')
    expect((await shown({ q: 'zeb' })).total).toBe(0)
  })

  it('lead where the table says', async () => {
    await old().bring('old,new\n/old-prices.pdf,/files/prices.txt\n/nowhere.pdf,/files/nothing.pdf\n')
    expect([await old().find('/old-prices.pdf'), await old().find('/nowhere.pdf')]).toEqual(['/files/prices.txt', undefined])
    expect(await test.trough.recognising.recognise('http://shop.example/old-prices.pdf', 'shop.example')).toEqual({
      target: { kind: 'file', id: list.id },
      title: list.title,
    })
  })

  it('lead nowhere while what they lead to is in the bin or not live, and never in a circle', async () => {
    const { pages, library } = test.trough
    const page = await pages.create({ title: 'Guides', slug: 'guides' })
    await pages.publish(page.id)
    await old().bring('/guides\n/guide.htm\n')
    await old().lead('/guides', { kind: 'page', id: page.id })
    await old().lead('/guide.htm', { kind: 'page', id: page.id })
    expect(await old().find('/guide.htm')).toBe('/guides')
    await pages.unpublish(page.id)
    // The page that was at the very address does not lead to itself while it is offline.
    expect([await old().find('/guides'), await old().find('/guide.htm')]).toEqual([undefined, undefined])
    const file = await test.put('short.txt', 'short')
    await old().lead('/guide.htm', { kind: 'file', id: file.id })
    await library.remove({ files: [file.id], folders: [] })
    expect(await old().find('/guide.htm')).toBeUndefined()
  })

  it.each([
    ['', 'No address'],
    ['just words', 'No address'],
    ['<urlset></urlset>', 'No address'],
  ])('refuses %j, saying what to bring', async (text, why) => {
    await expect(old().bring(text)).rejects.toThrow(why)
  })

  it('are led to nothing that visitors cannot have', async () => {
    await expect(old().lead('/about.html', { kind: 'file', id: 'gone' })).rejects.toThrow('Visitors find nothing there.')
    await expect(old().lead('/unheard-of', { kind: 'file', id: list.id })).rejects.toThrow('There is no such old address')
  })

  it('come in by the hundred thousand', async () => {
    const { read, added } = await old().bring(
      `old address\n${Array.from({ length: 100_000 }, (_, index) => `https://old.example/archive/${index}/sheet-${index}.pdf`).join('\n')}`,
    )
    expect([read, added]).toEqual([100_000, 100_000])
    expect((await shown({ q: 'sheet-99999.' })).items.map(({ path }) => path)).toEqual(['/archive/99999/sheet-99999.pdf'])
    expect(await old().find('/archive/4711/sheet-4711.pdf')).toBeUndefined()
  })
})
