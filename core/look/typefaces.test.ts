import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { createFontStack } from '@capsizecss/core'
import { fromBuffer } from '@capsizecss/unpack'
import subsetFont from 'subset-font'
import { describe, expect, it } from 'vitest'
import { fontFaces } from './fontFaces'
import { ALL_FONTS, familiesOf, fontsOf } from './typefaces'

const require = createRequire(import.meta.url)
const measuresOf = (name: string) => {
  const found = require(`@capsizecss/metrics/${name}`)
  return found.default ?? found
}
/** `hanken-grotesk` as the package of measures calls it. */
const camel = (file: string) => file.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase())
const LETTERS = Array.from({ length: 0x250 }, (_, code) => String.fromCodePoint(code)).join('')

/** The measures of a cut, which no list has: read from the font at that size. */
async function measuresAt(file: string, opsz: number) {
  const path = join(process.cwd(), `node_modules/@fontsource-variable/${file}/files/${file}-latin-opsz-normal.woff2`)
  return fromBuffer(
    await subsetFont(await readFile(path), LETTERS, { targetFormat: 'sfnt', variationAxes: { opsz, wght: { min: 400, max: 700 } } }),
  )
}

// The measures of @capsizecss, which reads them from the fonts themselves.
describe.each(ALL_FONTS.map(font => [font.name, font] as const))('what stands in for %s', (_name, { file, fallback, opticalSize }) => {
  it('takes the same room', async () => {
    const measures = opticalSize ? await measuresAt(file, opticalSize) : measuresOf(camel(file))
    const { fontFaces: faces } = createFontStack([measures, measuresOf(fallback.local[0]!.toLowerCase())], {
      fontFaceFormat: 'styleObject',
    }) as unknown as { fontFaces: { '@font-face': Record<string, string> }[] }
    const face = faces[0]!['@font-face']
    expect(fallback.sizeAdjust).toBeCloseTo(parseFloat(face.sizeAdjust!), 1)
    expect(fallback.ascent).toBeCloseTo(parseFloat(face.ascentOverride!), 1)
    expect(fallback.descent).toBeCloseTo(parseFloat(face.descentOverride!), 1)
  })
})

it('names each part of a font once, with what stands in for it', () => {
  const css = fontFaces(fontsOf({ heading: 'literata', text: 'literata' }), 'optional')
  expect(css.match(/@font-face/g)).toHaveLength(3)
  expect(css).toContain('/_fonts/literata-latin-1.woff2')
  expect(css).toContain('local("Georgia")')
})

it('sets headings in the cut for large sizes, where the text has a typeface of its own', () => {
  expect(familiesOf({ heading: 'literata', text: 'hanken' }).heading).toContain('"Literata Display"')
  expect(fontFaces(fontsOf({ heading: 'literata', text: 'hanken' }), 'optional')).toContain('/_fonts/literata-36-latin-1.woff2')
  expect(familiesOf({ heading: 'literata', text: 'literata' }).heading).not.toContain('Display')
  expect(familiesOf({ heading: 'hanken', text: 'literata' }).text).not.toContain('Display')
})
