import type { Lettering, Stroke } from '../../../core/page/sharedPicture'
import type { TypefaceName } from '../../../core/look/typefaces'
import { openFont, type Font } from './fonts'

/** Scripts that the typefaces have parts for; those a typeface lacks are left out. */
const SCRIPTS = ['latin', 'latin-ext', 'cyrillic', 'greek', 'vietnamese']

async function partsOf(typeface: TypefaceName): Promise<Font[]> {
  const parts = await Promise.all(
    SCRIPTS.map(script =>
      openFont(typeface, script)?.catch((error: unknown) => {
        if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined
        throw error
      }),
    ),
  )
  return parts.filter(part => part !== undefined)
}

/** Against the size of the words. */
interface Letter {
  outlines: string[]
  advance: number
  unit: number
}

/** Sets words as outlines, for pictures that are drawn where no font is installed. */
export async function openLettering(typeface: TypefaceName): Promise<Lettering> {
  const parts = await partsOf(typeface)
  const known = new Map<string, Letter | undefined>()

  function letterOf(letter: string, weight: number): Letter | undefined {
    const font = parts.find(part => part(weight).hasGlyphForCodePoint(letter.codePointAt(0)!))?.(weight)
    if (!font) return undefined
    const { glyphs, advanceWidth } = font.layout(letter)
    return { outlines: glyphs.map(glyph => glyph.path.toSVG()), advance: advanceWidth / font.unitsPerEm, unit: 1 / font.unitsPerEm }
  }

  return (words, size, weight) => {
    const strokes: Stroke[] = []
    let width = 0
    for (const each of words.normalize('NFC')) {
      const key = `${weight} ${each}`
      if (!known.has(key)) known.set(key, letterOf(each, weight))
      const letter = known.get(key)
      if (!letter) return undefined
      for (const outline of letter.outlines) strokes.push({ outline, x: width, scale: size * letter.unit })
      width += size * letter.advance
    }
    return { width, strokes }
  }
}
