import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const clay = () =>
  sharp({ create: { width: 300, height: 100, channels: 3, background: '#B4532A' } })
    .png()
    .toBuffer()

describe('the icon of the site', () => {
  it('is its initial until a picture is chosen, and again when that is taken off', async () => {
    const { icon, site } = test.trough
    await site.set({ name: 'élan & co', address: '' })
    expect((await icon.get()).bytes.toString()).toContain('>É</text>')
    const tile = await test.put('tile.png', await clay())
    await icon.choose(tile.id)
    const { bytes, contentType, own } = await icon.get()
    expect([contentType, own]).toEqual(['image/png', true])
    const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    expect([info.width, info.height]).toEqual([192, 192])
    const at = (x: number, y: number) => [...data.subarray((y * info.width + x) * 4, (y * info.width + x) * 4 + 4)]
    // Whole in the middle, with nothing above and below.
    expect(at(96, 96)[0]).toBeCloseTo(0xb4, -1)
    expect(at(96, 4)[3]).toBe(0)
    // It stays when its file goes.
    await test.trough.library.remove({ files: [tile.id], folders: [] })
    expect((await icon.get()).own).toBe(true)
    await icon.choose(null)
    expect((await icon.get()).contentType).toBe('image/svg+xml')
  })

  it('is nothing that cannot be shown', async () => {
    const words = await test.put('words.txt', 'no picture')
    await expect(test.trough.icon.choose(words.id)).rejects.toMatchObject({ status: 404 })
    await expect(test.trough.icon.choose('unheardof')).rejects.toMatchObject({ status: 404 })
  })
})

/** How many pixels of a picture are of about one colour. */
async function countOf(png: Buffer, [red, green, blue]: [number, number, number]): Promise<number> {
  const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true })
  let count = 0
  for (let at = 0; at < data.length; at += info.channels)
    if (Math.abs(data[at]! - red) + Math.abs(data[at + 1]! - green) + Math.abs(data[at + 2]! - blue) < 40) count++
  return count
}

describe('the picture that stands for a page', () => {
  const INK: [number, number, number] = [0x24, 0x21, 0x1d]

  it('is a PNG with the words of the title, in letters of other scripts too', async () => {
    const of = (title: string) => test.trough.sharedPictures.of(title)
    expect(await sharp(await of('Price list')).metadata()).toMatchObject({ format: 'png', width: 1200, height: 630 })
    const [none, short, long, czech, russian] = await Promise.all(
      ['価格', 'Price', 'Price list of all our clays', 'Ceník kameniny', 'Прайс'].map(async title => countOf(await of(title), INK)),
    )
    expect(none).toBe(0)
    expect(short).toBeGreaterThan(1000)
    expect(long).toBeGreaterThan(short!)
    expect(czech).toBeGreaterThan(1000)
    expect(russian).toBeGreaterThan(1000)
  })
})
