import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { makePdf } from '../../demo/pdf'
import { derive } from './derive'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-derive-'))
})
afterAll(() => rm(folder, { recursive: true }))

async function deriveBytes(bytes: Buffer, mediaType: string) {
  const path = join(folder, 'blob')
  await writeFile(path, bytes)
  return derive({ sha256: '', path, mediaType, picture: join(folder, 'pictures/first.webp') })
}

describe('derive', () => {
  it('counts the pages of a PDF and draws the first', async () => {
    const sections = Array.from({ length: 9 }, (_, index) => ({ heading: `Part ${index}`, text: Array.from({ length: 20 }, () => 'Clay and glaze. '.repeat(30)) }))
    const bytes = await makePdf({ title: 'Test', subtitle: '', sections }, new Date(0))
    // The page tree of an uncompressed PDF says how many pages it has (ISO 32000-1, 7.7.3.2).
    const count = Number(/\/Type \/Pages\s*\/Count (\d+)/.exec(bytes.toString('latin1'))![1])
    const { facts, picture } = await deriveBytes(bytes, 'application/pdf')
    expect(count).toBeGreaterThan(5)
    expect(facts.pages).toBe(count)
    expect(picture).toBe(true)
    const { width, height } = await sharp(join(folder, 'pictures/first.webp')).metadata()
    // A4 is 210 by 297 mm (ISO 216).
    expect(height / width).toBeCloseTo(297 / 210, 1)
  })

  it('measures pictures as they are seen, turned by their Exif orientation', async () => {
    const picture = sharp({ create: { width: 60, height: 40, channels: 3, background: '#0E6A68' } }).jpeg()
    expect((await deriveBytes(await picture.clone().toBuffer(), 'image/jpeg')).facts).toEqual({ width: 60, height: 40 })
    expect((await deriveBytes(await picture.withMetadata({ orientation: 6 }).toBuffer(), 'image/jpeg')).facts).toEqual({ width: 40, height: 60 })
  })

  it('fails clearly on what is broken', async () => {
    await expect(deriveBytes(Buffer.from('%PDF-1.7 and nothing more'), 'application/pdf')).rejects.toThrow()
    await expect(deriveBytes(Buffer.from('no picture'), 'image/png')).rejects.toThrow()
  })

  it('has nothing to say of other types', async () => expect(await deriveBytes(Buffer.from('x'), 'application/zip')).toEqual({ facts: {}, picture: false }))
})
