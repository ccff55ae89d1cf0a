import type { Appearance, Fill, Shadow, StateChange } from './appearance'
import { cssColour } from './colour'
import type { PictureOf } from './fillPictures'

/** Rules of all buttons, whatever their look. */
export const BUTTON_CSS = `
.tr-middle{text-align:center}
.tr-right{text-align:right}
.tr-page .tr-button{display:inline-block;max-width:100%;box-sizing:border-box;border-style:solid;line-height:1.3;text-align:center;text-decoration:none;overflow-wrap:anywhere}
.tr-label,.tr-note{display:block}
.tr-note{font-size:.82em;font-weight:400;margin-top:.1em}
.tr-icon{flex:none;display:block;fill:currentColor}
.tr-spoken{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%);white-space:nowrap}
@media print{.tr-page .tr-button.tr-button{border-color:#999;background:#fff;color:#000;box-shadow:none}}`

/** CSS pixels as `rem`, so that they grow with the text size a reader has chosen (WCAG 2.2, 1.4.4). */
const rem = (pixels: number) => (pixels ? `${Math.round((pixels / 16) * 10_000) / 10_000}rem` : '0')

/** An address for a quoted `url()`, which must not end before its time (CSS Syntax Module Level 3, 4.3.5), nor its style sheet with it. */
const cssUrl = (href: string) => href.replace(/[^\w/?&=.%:-]/g, character => encodeURIComponent(character))

function background(fill: Fill, pictureOf: PictureOf): string {
  switch (fill.kind) {
    case 'none':
      return 'none'
    case 'plain':
      return cssColour(fill.colour)
    case 'gradient':
      return `linear-gradient(${fill.angle}deg,${[...fill.stops]
        .sort((a, b) => a.at - b.at)
        .map(({ colour, at }) => `${cssColour(colour)} ${at}%`)
        .join(',')})`
    case 'picture': {
      const [href, colour] = [pictureOf(fill.file), cssColour(fill.colour)]
      if (!href) return colour
      const veil = `color-mix(in srgb,${colour} ${fill.veil}%,transparent)`
      // Until the picture has come the colour alone is behind the words.
      return `linear-gradient(${veil},${veil}),url("${cssUrl(href)}") center/cover ${colour}`
    }
  }
}

const shadowCss = (shadow: Shadow | null) =>
  shadow
    ? `${rem(shadow.x)} ${rem(shadow.y)} ${rem(shadow.blur)} color-mix(in srgb,${cssColour(shadow.colour)} ${shadow.strength}%,transparent)`
    : 'none'

function stateRule(
  selector: string,
  { fill, words, note, icon, border, shadow }: StateChange,
  ownNote: boolean,
  pictureOf: PictureOf,
): string {
  const declarations = [
    fill && `background:${background(fill, pictureOf)}`,
    words && `color:${cssColour(words)}`,
    border && `border-color:${cssColour(border)}`,
    shadow !== undefined && `box-shadow:${shadowCss(shadow)}`,
  ].filter(Boolean)
  // A note with a colour of its own could vanish on another fill.
  const noteColour = note ? cssColour(note) : ownNote && words && fill ? 'inherit' : undefined
  return (
    (declarations.length ? `\n${selector}{${declarations.join(';')}}` : '') +
    (noteColour ? `\n${selector} .tr-note{color:${noteColour}}` : '') +
    (icon ? `\n${selector} .tr-icon{color:${cssColour(icon)}}` : '')
  )
}

/** The second line, where it is set apart from the label. */
function secondLine(selector: string, { second, arrange, icon, width }: Appearance): string {
  if (!second) return ''
  const { size, weight, gap, above } = second
  const stacked = arrange === 'stacked'
  const turned = stacked && above
  const margin = !stacked ? '0' : above ? `0 0 ${rem(gap)}` : `${rem(gap)} 0 0`
  const around = icon ? `${selector} .tr-words` : selector
  return (
    `\n${selector} .tr-note{font-size:${rem(size)};font-weight:${weight};margin:${margin}}` +
    // What is read first stays first.
    (turned ? `\n${around}{display:${icon || width !== 'fit' ? 'flex' : 'inline-flex'};flex-direction:column-reverse}` : '')
  )
}

/** Where the pieces of a button stand: side by side with an icon, or with its note at the other end. */
function layout(selector: string, { arrange, icon, width }: Appearance): string {
  // Where the button ends with its words, its two ends are next to each other.
  const ends = `display:${width === 'fit' ? 'inline-flex' : 'flex'};justify-content:space-between;align-items:baseline;flex-wrap:wrap;gap:.1em ${width === 'fit' ? '.5em' : '1.5em'};text-align:left`
  if (!icon) return arrange === 'ends' ? `\n${selector}{${ends}}` : ''
  const direction = { before: 'row', after: 'row-reverse', above: 'column' }[icon.place]
  const along = arrange === 'ends' ? 'space-between' : 'center'
  return (
    `\n${selector}{display:${width === 'fill' ? 'flex' : 'inline-flex'};flex-direction:${direction};align-items:center;justify-content:${along};gap:${rem(icon.gap)}}` +
    `\n${selector} .tr-icon{width:${rem(icon.size)};height:${rem(icon.size)}${icon.colour ? `;color:${cssColour(icon.colour)}` : ''}}` +
    `\n${selector} .tr-words{min-width:0${arrange === 'ends' ? `;flex:1;${ends}` : ''}}`
  )
}

/** The rules of one look in all its states, for what carries a class; colours come from the palette around it. */
export function appearanceCss(className: string, appearance: Appearance, pictureOf: PictureOf): string {
  const {
    width,
    padding,
    radius,
    border,
    fill,
    shadow,
    words,
    noteColour,
    underline,
    size,
    weight,
    distance,
    hover,
    pressed,
    focus,
    change,
  } = appearance
  const selector = `.tr-page .${className}`
  const place = `.tr-page .tr-place:has(>.${className})`
  const thickness = border.sides === 'all' ? rem(border.width) : `${rem(border.width)} 0`
  const transition = change
    ? `;transition:background-color ${change}ms,border-color ${change}ms,color ${change}ms,box-shadow ${change}ms`
    : ''
  const widthRule = width === 'fill' ? 'display:block;width:100%;' : width === 'fit' ? '' : `width:${rem(width)};`
  return (
    `${place}{margin-block:${rem(distance)}}
${selector}{${widthRule}padding:${rem(padding.y)} ${rem(padding.x)};border-width:${thickness};border-color:${cssColour(border.colour)};border-radius:${rem(radius)};background:${background(fill, pictureOf)};box-shadow:${shadowCss(shadow)};color:${cssColour(words)};font-size:${rem(size)}${transition}}
${selector} .tr-label{font-weight:${weight}${underline ? ';text-decoration:underline;text-decoration-color:var(--accent);text-decoration-thickness:2px;text-underline-offset:.25em' : ''}}` +
    (noteColour ? `\n${selector} .tr-note{color:${cssColour(noteColour)}}` : '') +
    layout(selector, appearance) +
    secondLine(selector, appearance) +
    // Lines of neighbours become one.
    (border.sides === 'ends'
      ? `\n${place}+.tr-place:has(>.${className}){margin-top:calc(-1*${rem(distance)} - ${rem(border.width)})}`
      : '') +
    stateRule(`${selector}:hover`, hover, noteColour !== null, pictureOf) +
    stateRule(`${selector}:active`, pressed, noteColour !== null, pictureOf) +
    `\n${selector}:focus-visible{outline:${rem(focus.width)} solid ${cssColour(focus.colour)};outline-offset:${rem(3)}}` +
    // On paper nothing else would show that it is one.
    (fill.kind !== 'none' && !border.width ? `\n@media print{${selector}{border-width:1px}}` : '') +
    (change ? `\n@media (prefers-reduced-motion:reduce){${selector}{transition:none}}` : '')
  )
}
