import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { createFontStack } from '@capsizecss/core'
import { fromBuffer } from '@capsizecss/unpack'
import subsetFont from 'subset-font'
import { describe, expect, it } from 'vitest'
import { firstHref, fontFaces } from './fontFaces'
import { ownTypefaceSchema } from './ownTypeface'
import { ALL_FONTS, TYPEFACES, familiesOf, fontsOf } from './typefaces'

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
  const css = fontFaces(fontsOf({ type: { heading: 'literata', text: 'literata' }, own: [] }), 'optional')
  expect(css.match(/@font-face/g)).toHaveLength(3)
  expect(css).toContain('/_fonts/literata-latin-1.woff2')
  expect(css).toContain('local("Georgia")')
})

it('sets headings in the cut for large sizes, where the text has a typeface of its own', () => {
  expect(familiesOf({ type: { heading: 'literata', text: 'hanken' }, own: [] }).heading).toContain('"Literata Display"')
  expect(fontFaces(fontsOf({ type: { heading: 'literata', text: 'hanken' }, own: [] }), 'optional')).toContain(
    '/_fonts/literata-36-latin-1.woff2',
  )
  expect(familiesOf({ type: { heading: 'literata', text: 'literata' }, own: [] }).heading).not.toContain('Display')
  expect(familiesOf({ type: { heading: 'hanken', text: 'literata' }, own: [] }).text).not.toContain('Display')
})

describe('a typeface of the site’s own', () => {
  const file = (letter: string) => letter.repeat(32)
  const own = ownTypefaceSchema.parse({
    id: 'own-0123456789ab',
    name: 'Clay"}</style>',
    generic: 'serif',
    fallback: { sizeAdjust: 104, ascent: 96, descent: 26 },
    cuts: [
      {
        least: 400,
        most: 400,
        parts: [
          { part: 'latin', file: file('a') },
          { part: 'other', file: file('b') },
        ],
      },
      { least: 700, most: 700, parts: [{ part: 'whole', file: file('c') }] },
    ],
  })
  const site = { type: { heading: own.id, text: 'hanken' as const }, own: [own] }

  it('is called by what nobody else is called, and never by its maker’s words', () => {
    const css = fontFaces(fontsOf(site), 'optional')
    expect(css).not.toContain('Clay')
    expect(familiesOf(site)).toMatchObject({ heading: '"own-0123456789ab","own-0123456789ab stand-in",serif' })
    expect(css).toContain('@font-face{font-family:"own-0123456789ab stand-in";src:local("Georgia");size-adjust:104%')
  })

  // CSS Fonts 4, section 5.3: of faces whose ranges overlap, the one that was defined last is taken.
  it('names its most needed characters last, whole fonts without a range, and begins with those that pages need', () => {
    const rules = fontFaces(fontsOf(site), 'optional')
      .split('\n')
      .filter(rule => rule.includes('/_typefaces/'))
    expect(rules.map(rule => /_typefaces\/(\w)/.exec(rule)![1])).toEqual(['b', 'a', 'c'])
    expect(rules.map(rule => rule.includes('unicode-range'))).toEqual([true, true, false])
    expect(rules.map(rule => /font-weight:([\d ]+)/.exec(rule)![1])).toEqual(['400', '400', '700'])
    expect(firstHref(fontsOf(site)[0]!)).toBe(`/_typefaces/${file('a')}.woff2`)
    expect(fontsOf({ ...site, type: { heading: own.id, text: own.id } })).toHaveLength(1)
  })

  it('that is no longer there is the reader’s own', () => expect(familiesOf({ ...site, own: [] }).heading).toBe(TYPEFACES.sans.family))
})
