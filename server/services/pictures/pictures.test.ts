import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const png = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: '#1F5A57' } }).png().toBuffer()
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
    await test.put('plan.svg', '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="200"><script>alert(1)</script><rect width="400" height="200" fill="red"/></svg>')
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

  it.each([['wide.png', 641], ['wide.png', Number.NaN], ['wide.png', 1e9], ['never.png', 320], ['../secrets.json', 320]])('%s at %d is not there', (handle, width) =>
    expect(find(handle, width)).rejects.toMatchObject({ status: 404 }))

  it('follow their file: another edition shows at once', async () => {
    const file = await test.put('follows.png', await png(320, 100))
    expect(await sharp((await find('follows.png', 320)).bytes).metadata()).toMatchObject({ height: 100 })
    await test.putInto('follows.png', await png(320, 200), { editionOf: file.id })
    expect(await sharp((await find('follows.png', 320)).bytes).metadata()).toMatchObject({ height: 200 })
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
