import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { create, type Font } from 'fontkit'
import wawoff2 from 'wawoff2'
import { describe, expect, it } from 'vitest'
import { TYPEFACES } from '../../../core/look/typefaces'
import { allowing, packagedFont, trueType } from '../../testing/fonts'
import { readFont } from './font'

const require = createRequire(import.meta.url)
const openFont = (bytes: Buffer) => create(bytes) as Font
/** What a browser makes of WOFF2, by another package than the one that wrote it. */
const opened = async (woff2: Uint8Array) => openFont(Buffer.from(await wawoff2.decompress(woff2)))

describe.each(['literata', 'hanken-grotesk', 'lora', 'fraunces', 'bitter', 'figtree', 'karla', 'nunito-sans'])('%s', file => {
  it('is read as the typeface of that name that comes with Trough: its name, its serifs, its measures', async () => {
    const { family, font, title } = Object.values(TYPEFACES).flatMap(each => ('font' in each && each.font.file === file ? [each] : []))[0]!
    const { sizeAdjust, ascent, descent } = font.fallback
    const read = await readFont(await packagedFont(file))
    expect(read.name).toBe(title)
    expect(family).toMatch(new RegExp(`,${read.generic}$`))
    for (const [measure, known] of Object.entries({ sizeAdjust, ascent, descent }))
      expect(read.fallback[measure as 'ascent'], measure).toBeCloseTo(known, 1)
  })
})

it('gives the weights that pages are set in, and each character in one part', async () => {
  const whole = await trueType('karla')
  const { least, most, parts } = await readFont(whole)
  expect([least, most]).toEqual([400, 700])
  const all = new Set((await opened(parts[0]!.bytes)).characterSet)
  expect(all.has('é'.codePointAt(0)!)).toBe(true)
  for (const { bytes } of parts) {
    expect((await opened(bytes)).variationAxes.wght).toMatchObject({ min: 400, max: 700 })
    expect(bytes.length).toBeLessThan(whole.length / 2)
  }
  const served: number[][] = []
  for (const { bytes } of parts) served.push((await opened(bytes)).characterSet.filter(code => code !== 0xffff))
  expect(served.flat().sort((one, other) => one - other)).toEqual(
    [...openFont(whole).characterSet.filter(code => code !== 0xffff)].sort((one, other) => one - other),
  )
})

it('takes WOFF and TTF of one weight', async () => {
  const woff = await readFile(require.resolve('@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-500-normal.woff'))
  expect(await readFont(woff)).toMatchObject({ name: 'IBM Plex Mono', least: 500, most: 500 })
  expect(await readFont(await trueType('karla', 700))).toMatchObject({ name: 'Karla', least: 700, most: 700 })
  // Thinner than pages are set: it stands for their plain weight.
  expect(await readFont(await trueType('karla', 200))).toMatchObject({ least: 400, most: 400 })
})

// OpenType 1.9, OS/2 table: 0x0002 restricted licence, 0x0004 preview and print, 0x0100 no subsetting, 0x0200 bitmap embedding only.
describe('does what the maker of a font allows', () => {
  it.each([0x0002, 0x0200])('and refuses one that may not be put into pages: %i', async fsType => {
    await expect(readFont(allowing(await trueType('karla', 400), fsType))).rejects.toThrow('Its maker does not let it be put into pages')
  })
  it('and serves one whole that may not be taken apart', async () => {
    const font = await trueType('karla', 400)
    const { parts } = await readFont(allowing(font, 0x0100))
    expect(parts.map(({ part }) => part)).toEqual(['whole'])
    expect((await opened(parts[0]!.bytes)).characterSet).toEqual(openFont(font).characterSet)
    expect((await readFont(allowing(font, 0x0004))).parts.length).toBeGreaterThan(1)
  })
})

it('says what is wrong with what is no font, several, or half of one', async () => {
  await expect(readFont(Buffer.from('%PDF-1.7'))).rejects.toThrow('It is no font.')
  await expect(readFont(Buffer.alloc(0))).rejects.toThrow('It is no font.')
  await expect(readFont(Buffer.from('ttcf then more'))).rejects.toThrow('several fonts')
  const font = await trueType('karla', 400)
  await expect(readFont(font.subarray(0, 300))).rejects.toThrow('damaged')
  await expect(readFont((await packagedFont('karla')).subarray(0, 5000))).rejects.toThrow('damaged')
})
