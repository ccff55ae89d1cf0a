import { buffer } from 'node:stream/consumers'
import PDFDocument from 'pdfkit'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { targetFacts } from '../../../core/page/placeholders'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const png = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#1F5A57' } })
    .png()
    .toBuffer()
const find = (handle: string, width: number) => test.trough.pictures.find(handle, width)

describe('pictures on pages', () => {
  it('are served in the widths that are asked for, never wider than they are', async () => {
    await test.put('wide.png', await png(1200, 300))
    const { bytes, representation } = await find('wide.png', 640)
    expect(await sharp(bytes).metadata()).toMatchObject({ format: 'webp', width: 640, height: 160 })
    expect(representation.size).toBe(bytes.length)
    expect(await sharp((await find('wide.png', 1920)).bytes).metadata()).toMatchObject({ width: 1200, height: 300 })
    const tags = await Promise.all([320, 640].map(async width => (await find('wide.png', width)).representation.etag))
    expect(new Set(tags).size).toBe(2)
  })

  it('are drawn from an SVG without ever sending it', async () => {
    await test.put(
      'plan.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="200"><script>alert(1)</script><rect width="400" height="200" fill="red"/></svg>',
    )
    const { bytes, representation } = await find('plan.svg', 320)
    expect(representation.contentType).toBe('image/webp')
    expect(await sharp(bytes).metadata()).toMatchObject({ format: 'webp', width: 320, height: 160 })
  })

  it('stand for other files where they were given to them', async () => {
    const { trough } = test
    const face = await test.put('face.png', await png(500, 500))
    const list = await test.put('hours.txt', 'eight to five')
    await expect(find('hours.txt', 320)).rejects.toMatchObject({ status: 404 })
    await trough.library.change(list.id, { picture: face.id })
    expect(await sharp((await find('hours.txt', 320)).bytes).metadata()).toMatchObject({ width: 320, height: 320 })
  })

  it.each([
    ['wide.png', 641],
    ['wide.png', Number.NaN],
    ['wide.png', 1e9],
    ['never.png', 320],
    ['../secrets.json', 320],
  ])('%s at %d is not there', (handle, width) => expect(find(handle, width)).rejects.toMatchObject({ status: 404 }))

  it('follow their file: another edition shows at once', async () => {
    const file = await test.put('follows.png', await png(320, 100))
    expect(await sharp((await find('follows.png', 320)).bytes).metadata()).toMatchObject({ height: 100 })
    await test.putInto('follows.png', await png(320, 200), { editionOf: file.id })
    expect(await sharp((await find('follows.png', 320)).bytes).metadata()).toMatchObject({ height: 200 })
  })

  it('are first pages as wide as they are asked for, with their extent', async () => {
    const pdf = new PDFDocument({ size: 'A4' }).text('Price list').addPage()
    pdf.end()
    const list = await test.put('a4.pdf', await buffer(pdf))
    const guide = await test.put('guide.txt', 'eight to five')
    await test.trough.library.change(guide.id, { picture: (await test.put('face.png', await png(200, 100))).id })
    await test.trough.reading.start()
    await test.trough.reading.idle()
    const read = await test.trough.library.get(list.id)
    // ISO 216: one to the square root of two.
    expect(read.facts.cover!.height / read.facts.cover!.width).toBeCloseTo(Math.SQRT2, 2)
    expect(targetFacts(read).picture).toMatchObject(read.facts.cover!)
    expect(targetFacts(await test.trough.library.get(guide.id)).picture).toMatchObject({ width: 200, height: 100 })
    expect(await sharp((await find('a4.pdf', 320)).bytes).metadata()).toMatchObject({ format: 'webp', width: 320 })
    expect(await sharp((await find('a4.pdf', 640)).bytes).metadata()).toMatchObject(read.facts.cover!)
  })

  it('that were withdrawn stand for nothing', async () => {
    const face = await test.put('withdrawn.png', await png(64, 64))
    const list = await test.put('with-face.txt', 'eight to five')
    await test.trough.library.change(list.id, { picture: face.id })
    await find('with-face.txt', 320)
    await test.trough.editions.change(face.id, 1, { withdrawn: true })
    await expect(find('with-face.txt', 320)).rejects.toMatchObject({ status: 404 })
  })

  it('of a file in the bin are gone', async () => {
    const file = await test.put('brief.png', await png(64, 64))
    await find('brief.png', 320)
    await test.trough.library.remove({ files: [file.id], folders: [] }, { despite: true })
    await expect(find('brief.png', 320)).rejects.toMatchObject({ status: 404 })
  })

  it('that cannot be drawn say so', async () => {
    await test.put('broken.png', Buffer.concat([(await png(64, 64)).subarray(0, 60), Buffer.alloc(40)]))
    const drawing = vi.spyOn(test.trough.looking, 'picture')
    await expect(find('broken.png', 320)).rejects.toMatchObject({ status: 422 })
    await expect(find('broken.png', 320)).rejects.toMatchObject({ status: 422 })
    // Each try would take the one who draws for seconds.
    expect(drawing).toHaveBeenCalledTimes(1)
    drawing.mockRestore()
  })
})
