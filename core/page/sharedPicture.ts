import type { Palette } from '../look/palette'

/** An outline of SVG in the units of a font, whose y grows upwards; `x` in pixels from where the words begin. */
export interface Stroke {
  outline: string
  x: number
  scale: number
}

/** Sets words at a size in pixels; undefined where the font has no letters for them. */
export type Lettering = (words: string, size: number, weight: number) => { width: number; strokes: Stroke[] } | undefined

/** Pixels; the form that programs which show links make room for (common practice). */
export const SHARED_SIZE = { width: 1200, height: 630 }
const MARGIN = 88
const MOST_LINES = 3
/** The largest in which a title takes no more lines than there is room for is taken. */
const TITLE_SIZES = [92, 76, 62]
const WEIGHT = 650

/** Words in lines of at most a width; undefined where they cannot be set, or one word is too wide. */
function linesOf(words: string, size: number, width: number, set: Lettering): string[] | undefined {
  const lines: string[] = []
  for (const word of words.split(/\s+/).filter(Boolean)) {
    const longer = lines.length ? `${lines.at(-1)} ${word}` : word
    const fits = (set(longer, size, WEIGHT)?.width ?? Infinity) <= width
    if (fits && lines.length) lines[lines.length - 1] = longer
    else if ((set(word, size, WEIGHT)?.width ?? Infinity) <= width) lines.push(word)
    else return undefined
  }
  return lines
}

function outlines(words: string, size: number, weight: number, at: { x: number; y: number }, colour: string, set: Lettering): string {
  const strokes = set(words, size, weight)?.strokes ?? []
  const paths = strokes.map(
    ({ outline, x, scale }) =>
      `<path transform="translate(${(at.x + x).toFixed(2)} ${at.y}) scale(${scale.toFixed(5)} ${(-scale).toFixed(5)})" d="${outline}"/>`,
  )
  return `<g fill="${colour}">${paths.join('')}</g>`
}

/**
 * What stands for a page that has no picture where others link to it: its title and the site's name, in the
 * site's colours. Words that the letters are missing for are left out.
 *
 * @returns SVG, all words as outlines
 */
export function sharedPictureSvg({ title, site, palette }: { title: string; site: string; palette: Palette }, set: Lettering): string {
  const { width, height } = SHARED_SIZE
  const room = width - 2 * MARGIN
  const ways = TITLE_SIZES.map(size => ({ size, lines: linesOf(title, size, room, set) }))
  const { size, lines = [] } = ways.find(way => way.lines && way.lines.length <= MOST_LINES) ?? ways.at(-1)!
  const shown = lines.slice(0, MOST_LINES)
  const step = Math.round(size * 1.16)
  const first = Math.round(height / 2 - (step * shown.length) / 2 + size * 0.8)
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">` +
    `<rect width="${width}" height="${height}" fill="${palette.paper}"/>` +
    `<rect width="${width}" height="20" y="${height - 20}" fill="${palette.accent}"/>` +
    shown.map((line, index) => outlines(line, size, WEIGHT, { x: MARGIN, y: first + index * step }, palette.ink, set)).join('') +
    (site === title ? '' : outlines(site, 34, 500, { x: MARGIN, y: height - 68 }, palette.soft, set)) +
    '</svg>'
  )
}
