import { describe, expect, it } from 'vitest'
import { BUILT_IN_LOOKS } from './builtin'
import { contrast } from './contrast'
import { contrastOf } from './contrastCheck'
import { BAND } from '../shelf/shelfCss'
import { mix, tonePalettes } from './palette'
import { DEFAULT_STYLE, siteStyleSchema } from './siteStyle'
import { SITE_STYLES, SITE_STYLE_NAMES, dressedIn } from './siteStyles'

const schemes = SITE_STYLE_NAMES.flatMap(name => {
  const { palette, dark } = SITE_STYLES[name].style
  return [
    [name, 'light', palette],
    [name, 'dark', dark],
  ] as const
}).flatMap(([name, scheme, palette]) =>
  Object.entries(tonePalettes(palette!)).map(([tone, colours]) => [name, scheme, tone, colours] as const),
)

// WCAG 2.2, 1.4.3 and 1.4.11.
describe.each(schemes)('the style %s, %s, on %s', (_name, _scheme, _tone, colours) => {
  it('is read at 4.5 to 1', () => {
    const { paper, ink, soft, accent, accentDark, onAccent } = colours
    for (const [words, ground] of [
      [ink, paper],
      [soft, paper],
      [accent, paper],
      [accentDark, paper],
      [onAccent, accent],
      [onAccent, accentDark],
    ] as const)
      expect(contrast(words, ground), `${words} on ${ground}`).toBeGreaterThanOrEqual(4.5)
  })

  it('is read as easily on the bands of a shelf', () => {
    const { paper, ink, soft, accent } = colours
    for (const words of [ink, soft]) expect(contrast(words, mix(accent, paper, BAND))).toBeGreaterThanOrEqual(4.5)
  })

  it.each(BUILT_IN_LOOKS)('$name stands out in every state', ({ appearance }) =>
    expect(contrastOf(appearance, colours, () => undefined).filter(result => !result.passes)).toEqual([]),
  )
})

it('each style differs from each other in colours and in type or room, and fits the schema', () => {
  const styles = SITE_STYLE_NAMES.map(name => SITE_STYLES[name].style)
  for (const name of SITE_STYLE_NAMES) expect(siteStyleSchema.parse(dressedIn(name, DEFAULT_STYLE))).toEqual(dressedIn(name, DEFAULT_STYLE))
  const told = styles.map(({ palette: _, dark: __, ...rest }) => JSON.stringify(rest))
  expect(new Set(told).size).toBe(styles.length)
  expect(new Set(styles.map(({ palette }) => palette.accent)).size).toBe(styles.length)
})

it('a style that was kept before there were dark colours, scales and corners stays as it was', () => {
  const { palette, type } = SITE_STYLES.slip.style
  expect(siteStyleSchema.parse({ palette, type })).toMatchObject({
    dark: null,
    scale: 'even',
    corners: 'soft',
    head: 'beside',
    rhythm: 'even',
    shelves: 'ruled',
    paper: { addresses: 'outside', code: false },
  })
})
