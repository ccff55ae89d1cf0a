import { ownFontHref, type OwnPart } from './ownTypeface'
import type { OwnFont, PackagedFont, ServedFont } from './typefaces'

/** Parts of a font that are served by themselves, with the characters in each (as the fonts' own packages divide them). */
export const FONT_PARTS = {
  'latin':
    'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,U+0304,U+0308,U+0329,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD',
  'latin-ext':
    'U+0100-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+0304,U+0308,U+0329,U+1D00-1DBF,U+1E00-1E9F,U+1EF2-1EFF,U+2020,U+20A0-20AB,U+20AD-20C0,U+2113,U+2C60-2C7F,U+A720-A7FF',
} as const
export type FontPart = keyof typeof FONT_PARTS
export const FONT_PART_NAMES = Object.keys(FONT_PARTS) as FontPart[]

/** Weights that pages are set in; no others are served. */
export const FONT_WEIGHTS = { least: 400, most: 700 } as const

/** Another one for other bytes: what is served under it is kept for a year. */
const VERSION = 1
export const fontFileName = ({ file, opticalSize }: PackagedFont, part: FontPart): string =>
  `${file}-${opticalSize ? `${opticalSize}-` : ''}${part}-${VERSION}.woff2`

interface Face {
  href: string
  /** CSS, `font-weight` */
  weights: string
  /** CSS, `unicode-range`; all where left out */
  characters?: string
}

const packagedFaces = (font: PackagedFont): Face[] =>
  FONT_PART_NAMES.map(part => ({
    href: `/_fonts/${fontFileName(font, part)}`,
    weights: `${FONT_WEIGHTS.least} ${FONT_WEIGHTS.most}`,
    characters: FONT_PARTS[part],
  }))

/** Where the characters of a part lie; of two rules that hold a character the later one is taken (CSS Fonts 4, section 5.3). */
const CHARACTERS: Record<OwnPart, string | undefined> = { ...FONT_PARTS, other: 'U+100-10FFFF', whole: undefined }
const FROM_FEW_TO_ALL = Object.keys(CHARACTERS) as OwnPart[]
const ownFaces = ({ cuts }: OwnFont): Face[] =>
  cuts.flatMap(({ least, most, parts }) =>
    [...parts]
      .sort((one, other) => FROM_FEW_TO_ALL.indexOf(other.part) - FROM_FEW_TO_ALL.indexOf(one.part))
      .map(({ part, file }) => ({
        href: ownFontHref(file),
        weights: least === most ? String(least) : `${least} ${most}`,
        characters: CHARACTERS[part],
      })),
  )

const facesOf = (font: ServedFont): Face[] => ('cuts' in font ? ownFaces(font) : packagedFaces(font))

/** The file that nearly every page in a font needs. */
export function firstHref(font: ServedFont): string {
  const faces = facesOf(font)
  return (faces.find(({ characters }) => characters === FONT_PARTS.latin) ?? faces[0]!).href
}

/**
 * The rules that make some fonts known to a browser, each with what stands in for it until it is there.
 *
 * @param display what becomes of words that stand there before their font: set anew, or left until the next page (CSS Fonts 4)
 */
export const fontFaces = (fonts: ServedFont[], display: 'swap' | 'optional'): string =>
  fonts
    .flatMap(font => {
      const { name, fallback } = font
      return [
        ...facesOf(font).map(
          ({ href, weights, characters }) =>
            `@font-face{font-family:"${name}";src:url(${href}) format("woff2");font-weight:${weights};font-display:${display}${characters ? `;unicode-range:${characters}` : ''}}`,
        ),
        `@font-face{font-family:"${name} stand-in";src:${fallback.local.map(local => `local("${local}")`).join(',')};size-adjust:${fallback.sizeAdjust}%;ascent-override:${fallback.ascent}%;descent-override:${fallback.descent}%;line-gap-override:0%}`,
      ]
    })
    .join('\n')
