import { describe, expect, it } from 'vitest'
import type { Appearance, Fill } from './appearance'
import { BUILT_IN_LOOKS } from './builtin'
import { contrastOf } from './contrastCheck'
import { contrast } from './contrast'
import { appearanceCss } from './buttonCss'
import { DEFAULT_PALETTE, mix } from './palette'
import { fillPictures, mapFillPictures, withFill } from './fillPictures'

const slab = BUILT_IN_LOOKS[0]!.appearance
const picture = (file: string, veil = 50, colour = '#000000'): Fill => ({ kind: 'picture', file, veil, colour })
const filled = (fill: Fill, more: Partial<Appearance> = {}): Appearance => ({
  ...slab,
  noteColour: null,
  hover: {},
  words: '#FFFFFF',
  fill,
  ...more,
})

describe('pictures behind words', () => {
  const appearance = filled(picture('tile'), { hover: { fill: picture('tile', 80) }, pressed: { fill: picture('kiln') } })

  it('are found in every state, each once', () => {
    expect(fillPictures(appearance)).toEqual(['tile', 'kiln'])
    expect(fillPictures(slab)).toEqual([])
    expect(fillPictures({})).toEqual([])
  })

  it('give way to another, or to the colour that lay over them; nothing else changes', () => {
    const other = mapFillPictures(appearance, file => (file === 'tile' ? 'slip' : file))
    expect(other).toEqual({ ...appearance, fill: picture('slip'), hover: { fill: picture('slip', 80) } })
    expect(mapFillPictures(appearance, file => (file === 'kiln' ? undefined : file))).toEqual({
      ...appearance,
      pressed: { fill: { kind: 'plain', colour: '#000000' } },
    })
    expect(mapFillPictures(slab, () => 'x')).toEqual(slab)
    expect(mapFillPictures({}, () => 'x')).toEqual({})
  })

  it('are drawn under their veil, and leave its colour where they are not there', () => {
    const css = (pictureOf: (file: string) => string | undefined) => appearanceCss('it', filled(picture('tile', 35, 'accent')), pictureOf)
    expect(css(() => '/pictures/tile.png?width=960&v=1')).toContain(
      'background:linear-gradient(color-mix(in srgb,var(--accent) 35%,transparent),color-mix(in srgb,var(--accent) 35%,transparent)),url("/pictures/tile.png?width=960&v=1") center/cover var(--accent);',
    )
    expect(css(() => undefined)).toContain('background:var(--accent);')
  })

  it('cannot end the style sheet they stand in, whatever their address', () => {
    expect(appearanceCss('it', filled(picture('tile')), () => '/pictures/a"){}</style><script>\n')).not.toMatch(/"\)\{|<|\n\)/)
  })
})

describe('another fill', () => {
  const hovered = (hover: Appearance['hover'], fill: Fill, before: Fill = { kind: 'plain', colour: 'accent' }) =>
    withFill({ fill: before, hover }, fill).hover

  it('that is a picture stays under the pointer with more veil, and other parts of that state are kept', () => {
    expect(hovered({ fill: { kind: 'plain', colour: 'accentDark' }, words: 'ink' }, picture('tile', 60))).toEqual({
      fill: picture('tile', 75),
      words: 'ink',
    })
    expect(hovered({}, picture('tile', 95))).toEqual({ fill: picture('tile', 100) })
  })

  it('takes along what followed the picture before, and leaves another one alone', () => {
    expect(hovered({ fill: picture('tile', 75) }, picture('slip', 40), picture('tile', 60))).toEqual({ fill: picture('slip', 55) })
    expect(hovered({ fill: picture('kiln', 75) }, picture('slip', 40), picture('tile', 60))).toEqual({ fill: picture('kiln', 75) })
    expect(hovered({ fill: picture('tile', 75), border: 'ink' }, { kind: 'none' }, picture('tile', 60))).toEqual({ border: 'ink' })
  })

  it('that is no picture changes nothing else', () =>
    expect(hovered({ words: 'ink' }, { kind: 'plain', colour: 'ink' })).toEqual({ words: 'ink' }))
})

describe('contrast over a picture', () => {
  const CHECKERED = ['#FFFFFF', '#7A8B6F', '#101010']
  const sampleOf = () => CHECKERED
  const wordsOn = (fill: Fill, words = '#FFFFFF', sample: () => string[] | undefined = sampleOf) =>
    contrastOf(filled(fill, { words }), DEFAULT_PALETTE, sample).find(({ state, part }) => state === 'normal' && part === 'words')!

  it('is that of the worst of its colours, as the veil lets them through (CSS Color 5, color-mix in srgb)', () => {
    expect(wordsOn(picture('tile', 0)).ratio).toBe(1)
    expect(wordsOn(picture('tile', 60)).ratio).toBeCloseTo(contrast('#FFFFFF', '#666666'), 1)
    expect(wordsOn(picture('tile', 100)).ratio).toBe(21)
  })

  it('that is too little is mended by the least veil that passes', () => {
    const { passes, veil } = wordsOn(picture('tile', 20))
    expect(passes).toBe(false)
    expect(wordsOn(picture('tile', veil!)).passes).toBe(true)
    expect(wordsOn(picture('tile', veil! - 5)).passes).toBe(false)
    expect(wordsOn(picture('tile', 80))).not.toHaveProperty('veil')
  })

  it('is not promised by any veil of the colour of the words', () =>
    expect(wordsOn(picture('tile', 20, '#FFFFFF'))).not.toHaveProperty('veil'))

  it('is that over the veil alone while the picture is not known', () => {
    expect(wordsOn(picture('tile', 10, '#333333'), '#FFFFFF', () => undefined).ratio).toBeCloseTo(
      contrast('#FFFFFF', mix('#333333', '#333333', 1)),
      5,
    )
  })
})
