import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { defineNuxtModule } from 'nuxt/kit'
import subsetFont from 'subset-font'
import { FONT_PARTS, FONT_PART_NAMES, FONT_WEIGHTS, fontFileName, type FontPart } from '../core/look/fontFaces'
import { ALL_FONTS } from '../core/look/typefaces'

const YEAR = 365 * 24 * 60 * 60

const charactersOf = (part: FontPart): string =>
  FONT_PARTS[part]
    .split(',')
    .flatMap(range => {
      const [first, last] = range
        .slice(2)
        .split('-')
        .map(code => parseInt(code, 16))
      return Array.from({ length: (last ?? first!) - first! + 1 }, (_, index) => String.fromCodePoint(first! + index))
    })
    .join('')

/** The fonts of published pages, made smaller: of the weights that pages are set in alone. Made once, and kept beside the packages. */
export default defineNuxtModule({
  meta: { name: 'trough-fonts' },
  async setup(_options, nuxt) {
    const packages = join(nuxt.options.rootDir, 'node_modules')
    const folder = join(packages, '.cache', 'trough-fonts')
    mkdirSync(folder, { recursive: true })
    for (const font of ALL_FONTS)
      for (const part of FONT_PART_NAMES) {
        const made = join(folder, fontFileName(font, part))
        if (existsSync(made)) continue
        const whole = readFileSync(
          join(packages, `@fontsource-variable/${font.file}/files/${font.file}-${part}-${font.opticalSize ? 'opsz' : 'wght'}-normal.woff2`),
        )
        const small = await subsetFont(whole, charactersOf(part), {
          targetFormat: 'woff2',
          variationAxes: {
            wght: { min: FONT_WEIGHTS.least, max: FONT_WEIGHTS.most },
            ...(font.opticalSize && { opsz: font.opticalSize }),
          },
        })
        // A build that is stopped here leaves no half of one.
        writeFileSync(`${made}.${process.pid}`, small)
        renameSync(`${made}.${process.pid}`, made)
      }
    nuxt.options.nitro.publicAssets = [...(nuxt.options.nitro.publicAssets ?? []), { dir: folder, baseURL: '/_fonts', maxAge: YEAR }]
  },
})
