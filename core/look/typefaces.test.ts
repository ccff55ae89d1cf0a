import { createRequire } from 'node:module'
import { createFontStack } from '@capsizecss/core'
import { describe, expect, it } from 'vitest'
import { fontFaces } from './fontFaces'
import { TYPEFACE_NAMES, fontsOf, type TypefaceName } from './typefaces'

const require = createRequire(import.meta.url)
const measuresOf = (name: string) => {
  const found = require(`@capsizecss/metrics/${name}`)
  return found.default ?? found
}
/** `hanken-grotesk` as the package of measures calls it. */
const camel = (file: string) => file.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase())

const served = TYPEFACE_NAMES.flatMap(name => fontsOf([name]).map(font => [name, font] as const))

// The measures of @capsizecss, which reads them from the fonts themselves.
describe.each(served)('what stands in for %s', (_name, { file, fallback }) => {
  it('takes the same room', () => {
    const { fontFaces: faces } = createFontStack([measuresOf(camel(file)), measuresOf(fallback.local[0]!.toLowerCase())], {
      fontFaceFormat: 'styleObject',
    }) as unknown as { fontFaces: { '@font-face': Record<string, string> }[] }
    const face = faces[0]!['@font-face']
    expect(fallback.sizeAdjust).toBeCloseTo(parseFloat(face.sizeAdjust!), 1)
    expect(fallback.ascent).toBeCloseTo(parseFloat(face.ascentOverride!), 1)
    expect(fallback.descent).toBeCloseTo(parseFloat(face.descentOverride!), 1)
  })
})

it('names each part of a font once, with what stands in for it', () => {
  const css = fontFaces(fontsOf(['literata', 'literata', 'sans'] satisfies TypefaceName[]), 'optional')
  expect(css.match(/@font-face/g)).toHaveLength(3)
  expect(css).toContain('/_fonts/literata-latin-1.woff2')
  expect(css).toContain('local("Georgia")')
})
