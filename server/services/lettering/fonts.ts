import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type * as fontkit from 'fontkit'
import { TYPEFACES, type PackagedFont, type Typeface, type TypefaceName } from '../../../core/look/typefaces'
import { createQueue } from '../../../core/queue'
import { ROOT } from '../../root'

/** Where the file of a typeface for a script lies; undefined for one that only readers have. */
function fileOf(typeface: TypefaceName, script: string): string | undefined {
  const { font }: Typeface<PackagedFont> = TYPEFACES[typeface]
  return font && `@fontsource-variable/${font.file}/files/${font.file}-${script}-wght-normal.woff2`
}

/** A font at a weight, of 100 to 900. */
export type Font = (weight: number) => fontkit.Font

/** What is unpacked lies in the unpacker's own memory for a moment, which the next one is unpacked into. */
const unpackedInTurn = createQueue()

/** Opens a font that is as it is served, as WOFF2. */
export async function openServed(woff2: Uint8Array): Promise<Font> {
  // Not at the start: these two take a tenth of it, and most visitors come without them.
  const [{ create }, { default: wawoff2 }] = await Promise.all([import('fontkit'), import('wawoff2')])
  const font = create(await unpackedInTurn(async () => Buffer.from(await wawoff2.decompress(woff2)))) as fontkit.Font
  if (!font.variationAxes.wght) return () => font
  const weights = new Map<number, fontkit.Font>()
  return weight => {
    const heavy = weights.get(weight) ?? font.getVariation({ wght: weight })
    weights.set(weight, heavy)
    return heavy
  }
}

const opened = new Map<string, Promise<Font>>()

/** The part of a typeface for a script, such as `latin-ext`; undefined for a typeface that only the reader's computer has. */
export function openFont(typeface: TypefaceName, script: string): Promise<Font> | undefined {
  const file = fileOf(typeface, script)
  if (!file) return undefined
  const known = opened.get(file) ?? readFile(join(ROOT, 'node_modules', file)).then(openServed)
  opened.set(file, known)
  // One that could not be read may be the next time.
  known.catch(() => opened.delete(file))
  return known
}
