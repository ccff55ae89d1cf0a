import { escapeHtml } from '../page/escape'
import { fillAt, FILLS, type Hatch } from './fills'

/** A chart of bars as it is drawn on the board. */
export interface BarChart {
  title: string
  /** one to each bar */
  labels: readonly string[]
  /** one above the other in each bar */
  series: readonly { label: string; data: readonly number[] }[]
}

const [WIDTH, HEIGHT] = [960, 420]
const [LEFT, RIGHT, TOP, BOTTOM] = [56, 16, 44, 74]
const INK = '#17211F'
const SOFT = '#4C5A57'
const RULE = '#e1e7e5'
const HATCHES: Record<Hatch, string> = {
  none: '',
  rising: '<path d="M-2 10L10 -2M-2 2L2 -2M6 10L10 6"/>',
  dots: '<path d="M4 2v4M2 4h4"/>',
  falling: '<path d="M-2 -2L10 10M-2 6L2 10M6 -2L10 2"/>',
  level: '<path d="M0 4h8"/>',
  upright: '<path d="M4 0v8"/>',
}

/** The step between the lines behind bars: 1, 2 or 5 with noughts, so that about five of them fit. */
export function niceStep(most: number): number {
  const rough = Math.max(1, most / 5)
  const tens = 10 ** Math.floor(Math.log10(rough))
  return tens * [1, 2, 5, 10].find(times => times * tens >= rough)!
}

/** What a place in the order is filled with: tiles of one colour alone would show their seams. */
function paintOf(place: number): string {
  const [colour, hatch] = FILLS[fillAt(place)]!
  return hatch === 'none' ? colour : `url(#fill${fillAt(place)})`
}

const round = (number: number) => Math.round(number * 100) / 100

/** A picture of bars (SVG 1.1) that says what it shows to who does not see it, and prints at any size. */
export function chartSvg({ title, labels, series }: BarChart): string {
  const sums = labels.map((_, place) => series.reduce((sum, { data }) => sum + (data[place] ?? 0), 0))
  const step = niceStep(Math.max(1, ...sums))
  const top = Math.max(step, Math.ceil(Math.max(...sums, 1) / step) * step)
  const [width, height] = [WIDTH - LEFT - RIGHT, HEIGHT - TOP - BOTTOM]
  const yOf = (count: number) => round(TOP + height - (count / top) * height)
  const slot = width / Math.max(1, labels.length)
  const text = (x: number, y: number, words: string, more = '') =>
    `<text x="${round(x)}" y="${round(y)}"${more}>${escapeHtml(words)}</text>`

  const lines = Array.from({ length: top / step + 1 }, (_, line) => line * step).flatMap(count => [
    `<path d="M${LEFT} ${yOf(count)}H${WIDTH - RIGHT}" stroke="${count ? RULE : '#A9B7B3'}"/>`,
    text(LEFT - 8, yOf(count) + 4, count.toLocaleString('en'), ` text-anchor="end" fill="${SOFT}"`),
  ])
  const bars = labels.flatMap((_, place) => {
    let below = 0
    return series.flatMap(({ data }, index) => {
      const count = data[place] ?? 0
      if (!count) return []
      const y = yOf(below + count)
      const tall = round(yOf(below) - y)
      below += count
      const wide = round(Math.min(46, slot * 0.8))
      return `<rect x="${round(LEFT + slot * (place + 0.5) - wide / 2)}" y="${y}" width="${wide}" height="${tall}" fill="${paintOf(index)}"/>`
    })
  })
  // As many names of bars as stand beside each other.
  const every = Math.max(1, Math.ceil((labels.length * 70) / width))
  const names = labels.flatMap((label, place) =>
    place % every ? [] : text(LEFT + slot * (place + 0.5), HEIGHT - BOTTOM + 18, label, ` text-anchor="middle" fill="${SOFT}"`),
  )
  let at = LEFT
  const legend = (series.length > 1 ? series : []).flatMap(({ label }, place) => {
    const x = at
    at += 34 + label.length * 7
    return [
      `<rect x="${x}" y="${HEIGHT - 32}" width="14" height="14" fill="${paintOf(place)}"/>`,
      text(x + 20, HEIGHT - 20, label, ` fill="${INK}"`),
    ]
  })
  const patterns = FILLS.map(
    ([colour, hatch], place) =>
      `<pattern id="fill${place}" width="8" height="8" patternUnits="userSpaceOnUse"><rect width="8" height="8" fill="${colour}"/><g stroke="#fff" stroke-opacity=".72" stroke-width="1.6">${HATCHES[hatch]}</g></pattern>`,
  )
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}" role="img" aria-labelledby="title" font-family="'Hanken Grotesk', sans-serif" font-size="13">
<title id="title">${escapeHtml(title)}</title>
<defs>${patterns.join('')}</defs>
<rect width="${WIDTH}" height="${HEIGHT}" fill="#fff"/>
${text(LEFT, 24, title, ` fill="${INK}" font-weight="600"`)}
${[...lines, ...bars, ...names, ...legend].join('\n')}
</svg>
`
}
