import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import * as fontkit from 'fontkit'
import wawoff2 from 'wawoff2'
import type { Measure } from '../../../core/look/fit'
import type { TypefaceName } from '../../../core/look/typefaces'
import { ROOT } from '../../root'

/** The files of the typefaces that are served; the reader's own cannot be measured here. */
const FONTS: Partial<Record<TypefaceName, string>> = {
  literata: '@fontsource-variable/literata/files/literata-latin-wght-normal.woff2',
  hanken: '@fontsource-variable/hanken-grotesk/files/hanken-grotesk-latin-wght-normal.woff2',
}

async function open(file: string): Promise<Measure> {
  const bytes = await wawoff2.decompress(await readFile(join(ROOT, 'node_modules', file)))
  const font = fontkit.create(Buffer.from(bytes)) as fontkit.Font
  const weights = new Map<number, fontkit.Font>()
  return (words, size, weight) => {
    const heavy = weights.get(weight) ?? font.getVariation({ wght: weight })
    weights.set(weight, heavy)
    return heavy.layout(words).advanceWidth / heavy.unitsPerEm * size
  }
}

/** Measures words in the fonts that pages are set in. */
export function createMeasuring() {
  const opened = new Map<string, Promise<Measure>>()
  return {
    /** For words in a typeface; undefined for one that only the reader's computer has. */
    in(typeface: TypefaceName): Promise<Measure | undefined> {
      const file = FONTS[typeface]
      if (!file) return Promise.resolve(undefined)
      const known = opened.get(file) ?? open(file)
      opened.set(file, known)
      return known
    },
  }
}
export type Measuring = ReturnType<typeof createMeasuring>
