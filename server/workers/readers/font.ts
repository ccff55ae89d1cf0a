import { createFontStack } from '@capsizecss/core'
import arial from '@capsizecss/metrics/arial'
import georgia from '@capsizecss/metrics/georgia'
import { fromBuffer } from '@capsizecss/unpack'
import { create, type Font } from 'fontkit'
import subsetFont from 'subset-font'
import { groupBy } from '../../../core/group'
import { FONT_PARTS, FONT_WEIGHTS } from '../../../core/look/fontFaces'
import type { OwnPart, OwnTypeface } from '../../../core/look/ownTypeface'
import { Unreadable } from './reader'

/** A font as it will be served, with its measures. */
export interface ReadFont extends Pick<OwnTypeface, 'name' | 'generic' | 'fallback'> {
  least: number
  most: number
  parts: { part: OwnPart; bytes: Uint8Array }[]
}

/** The first four bytes (OpenType 1.9, "Organization of an OpenType Font"; WOFF 1.0 and 2.0, "File Header"). */
const FONT_BEGINNINGS = new Set(['\0\x01\0\0', 'OTTO', 'true', 'wOFF', 'wOF2'])
const COLLECTION = 'ttcf'

/** As a font that can be read without unpacking, whatever it came as. */
async function plain(bytes: Buffer): Promise<Buffer> {
  const beginning = bytes.toString('latin1', 0, 4)
  if (beginning === COLLECTION) throw new Unreadable('It holds several fonts in one file. Take one of them out of it, and put that in.')
  if (!FONT_BEGINNINGS.has(beginning)) throw new Unreadable('It is no font. Fonts are WOFF2, WOFF, TTF or OTF files.')
  try {
    return await subsetFont(bytes, undefined, { keepAllGlyphs: true, targetFormat: 'sfnt' })
  } catch {
    throw new Unreadable('The font is damaged, or not whole. Put it in once more.')
  }
}

/** What its maker allows (OpenType 1.9, OS/2 table, `fsType`). */
function refuseUnlessAllowed({ noEmbedding, viewOnly, editable, bitmapOnly }: Font['OS/2']['fsType']): void {
  // Of several the least strict one holds.
  if ((noEmbedding && !viewOnly && !editable) || bitmapOnly)
    throw new Unreadable('Its maker does not let it be put into pages (the font says so itself). Ask for a licence for web pages.')
}

/** An I without serifs is a bar: its outline has no more parts than these. */
const BAR = 8

/**
 * Whether letters have serifs: as the font says of itself (OpenType 1.9, OS/2 table, `panose` and `sFamilyClass`), or by the shape of an I
 * where it says nothing, as most fonts of late do.
 */
function hasSerifs(font: Font): boolean {
  const { panose, sFamilyClass } = font['OS/2']
  const [family, serifs] = panose as [number, number]
  if (family === 2 && serifs >= 2) return serifs <= 10
  const kind = sFamilyClass >> 8
  if (kind) return kind <= 5 || kind === 7
  return font.glyphForCodePoint('I'.codePointAt(0)!).path.commands.length > BAR
}

/** What some fonts add to the name of their family. */
const CUT_NAMES = /(?: (?:\d+pt|Thin|ExtraLight|Light|Regular|Medium|SemiBold|Bold|ExtraBold|Black))+$/
const nameOf = (font: Font) =>
  (font.getName('preferredFamily', 'en') ?? font.familyName ?? '').replace(CUT_NAMES, '').trim().slice(0, 80) || 'A typeface of your own'

const inRanges = (ranges: string) => {
  const bounds = ranges.split(',').map(range => {
    const [first, last] = range.slice(2).split('-')
    return [parseInt(first!, 16), parseInt(last ?? first!, 16)] as const
  })
  return (code: number) => bounds.some(([first, last]) => code >= first && code <= last)
}
const IN_PART = Object.entries(FONT_PARTS).map(([part, ranges]) => [part as OwnPart, inRanges(ranges)] as const)

/** The characters of each part that it has any of. */
const charactersOf = (font: Font): Map<OwnPart, number[]> =>
  groupBy(
    // Tables of characters end with one that no font has.
    font.characterSet.filter(code => font.hasGlyphForCodePoint(code)),
    code => IN_PART.find(([, holds]) => holds(code))?.[0] ?? 'other',
  )

/** How what stands in for it takes its room (CSS Fonts 5: `size-adjust` makes the other measures larger, too). */
async function standIn(bytes: Buffer, generic: OwnTypeface['generic']): Promise<OwnTypeface['fallback']> {
  const measures = await fromBuffer(bytes)
  const { fontFaces } = createFontStack([measures, generic === 'serif' ? georgia : arial], {
    fontFaceFormat: 'styleObject',
  }) as unknown as { fontFaces: { '@font-face': { sizeAdjust: string } }[] }
  const sizeAdjust = parseFloat(fontFaces[0]!['@font-face'].sizeAdjust)
  const percent = (measure: number) => Math.round((Math.abs(measure) / measures.unitsPerEm / sizeAdjust) * 1e6) / 100
  return { sizeAdjust: Math.round(sizeAdjust * 100) / 100, ascent: percent(measures.ascent), descent: percent(measures.descent) }
}

/** As one text; a font of Chinese has more characters than a call has room for. */
const textOf = (codes: number[]) => codes.map(code => String.fromCodePoint(code)).join('')

const within = (weight: number) => Math.min(FONT_WEIGHTS.most, Math.max(FONT_WEIGHTS.least, weight))

/**
 * Makes a font ready to be served: as WOFF2, of the weights that pages are set in, in parts by its characters where its maker allows it.
 *
 * @throws Unreadable in words for its owner
 */
export async function readFont(given: Buffer): Promise<ReadFont> {
  const bytes = await plain(given)
  const font = create(bytes) as Font
  const about = font['OS/2'] as Font['OS/2'] | undefined
  // Old fonts for one system alone go without it, and browsers refuse those.
  if (!about) throw new Unreadable('The font lacks what browsers need (its OS/2 table). Export it anew.')
  refuseUnlessAllowed(about.fsType)
  const { wght, ...others } = font.variationAxes
  const [least, most] = wght ? [within(wght.min), within(wght.max)] : [within(about.usWeightClass), within(about.usWeightClass)]
  const options = {
    targetFormat: 'woff2' as const,
    variationAxes: {
      ...Object.fromEntries(Object.entries(others).map(([axis, bounds]) => [axis, bounds!.default])),
      ...(wght && { wght: wght.max < FONT_WEIGHTS.least ? wght.max : wght.min > FONT_WEIGHTS.most ? wght.min : { min: least, max: most } }),
    },
  }
  const characters = charactersOf(font)
  if (!characters.size) throw new Unreadable('There is no letter in this font.')
  const generic = hasSerifs(font) ? 'serif' : 'sans-serif'
  // Measured as text is set, which is not how each variable font begins.
  const text = wght
    ? await subsetFont(bytes, undefined, { keepAllGlyphs: true, targetFormat: 'sfnt', variationAxes: { wght: least } })
    : bytes
  const parts: ReadFont['parts'] = about.fsType.noSubsetting
    ? [{ part: 'whole', bytes: await subsetFont(bytes, undefined, { ...options, keepAllGlyphs: true }) }]
    : await Promise.all([...characters].map(async ([part, codes]) => ({ part, bytes: await subsetFont(bytes, textOf(codes), options) })))
  return { name: nameOf(font), generic, fallback: await standIn(text, generic), least, most, parts }
}
