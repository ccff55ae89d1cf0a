import type { Lettering, Stroke } from '../../../core/page/sharedPicture'
import type { TypefaceName } from '../../../core/look/typefaces'
import { openFont, type Font } from './fonts'

/** Scripts that the typefaces have parts for; those a typeface lacks are left out. */
const SCRIPTS = ['latin', 'latin-ext', 'cyrillic', 'greek', 'vietnamese']

async function partsOf(typeface: TypefaceName): Promise<Font[]> {
  const parts = await Promise.all(SCRIPTS.map(script => openFont(typeface, script)?.catch((error: unknown) => {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined
    throw error
  })))
  return parts.filter(part => part !== undefined)
}

/** Sets words as outlines, for pictures that are drawn where no font is installed. */
export async function openLettering(typeface: TypefaceName): Promise<Lettering> {
  const parts = await partsOf(typeface)
  return (words, size, weight) => {
    const strokes: Stroke[] = []
    let width = 0
    for (const letter of words.normalize('NFC')) {
      const font = parts.find(part => part(weight).hasGlyphForCodePoint(letter.codePointAt(0)!))?.(weight)
      if (!font) return undefined
      const scale = size / font.unitsPerEm
      const { glyphs, advanceWidth } = font.layout(letter)
      for (const glyph of glyphs) strokes.push({ outline: glyph.path.toSVG(), x: width, scale })
      width += advanceWidth * scale
    }
    return { width, strokes }
  }
}
