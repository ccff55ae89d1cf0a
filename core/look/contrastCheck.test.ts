import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Appearance } from './appearance'
import { BUILT_IN_LOOKS } from './builtin'
import { contrastOf, withNearest } from './contrastCheck'
import { contrast, isLarge, nearestPassing } from './contrast'
import { DEFAULT_PALETTE, TONES, tonePalettes } from './palette'

const slab = BUILT_IN_LOOKS[0]!.appearance
const wordsOf = (appearance: Partial<Appearance>, state = 'normal') =>
  contrastOf({ ...slab, ...appearance }, DEFAULT_PALETTE, () => undefined).find(
    result => result.state === state && result.part === 'words',
  )!

describe.each(BUILT_IN_LOOKS)('$name', ({ appearance }) => {
  it.each(TONES)('passes in every state on the background %s (WCAG 2.2 AA)', tone =>
    expect(contrastOf(appearance, tonePalettes(DEFAULT_PALETTE)[tone], () => undefined).filter(result => !result.passes)).toEqual([]),
  )
})

describe('contrast of a button', () => {
  // White on #767676 is the lightest grey that passes AA: 4.54; on #777777 it is 4.48 (WCAG 2.2 formula).
  it('is as WCAG has it for a plain fill', () => {
    expect(wordsOf({ words: '#FFFFFF', fill: { kind: 'plain', colour: '#767676' } })).toMatchObject({ passes: true, least: 4.5 })
    expect(wordsOf({ words: '#FFFFFF', fill: { kind: 'plain', colour: '#777777' } })).toMatchObject({
      passes: false,
      ratio: expect.closeTo(4.48, 2),
    })
  })

  it('asks less of large words: 24 pixels, or 18.66 and bold', () => {
    expect([isLarge(24, 400), isLarge(23, 400), isLarge(19, 700), isLarge(19, 600), isLarge(18, 800)]).toEqual([
      true,
      false,
      true,
      false,
      false,
    ])
    expect(wordsOf({ words: '#FFFFFF', fill: { kind: 'plain', colour: '#777777' }, size: 24 }).passes).toBe(true)
  })

  it('of a gradient is that of its worst point, also between its stops', () => {
    const gradient = (...colours: string[]): Appearance['fill'] => ({
      kind: 'gradient',
      angle: 90,
      stops: colours.map((colour, index) => ({ colour, at: (index * 100) / (colours.length - 1) })),
    })
    // Both ends stand out from a middle grey, what lies half way does not.
    const result = wordsOf({ words: '#808080', fill: gradient('#000000', '#FFFFFF') })
    expect(Math.min(contrast('#808080', '#000000'), contrast('#808080', '#FFFFFF'))).toBeGreaterThan(3.9)
    expect(result.ratio).toBeLessThan(1.1)
    expect(wordsOf({ words: '#FFFFFF', fill: gradient('#000000', '#333333') }).passes).toBe(true)
  })

  it('looks at each state: what is pressed is under the pointer, too', () => {
    const hover = { fill: { kind: 'plain' as const, colour: '#FFFF00' } }
    expect(wordsOf({ hover }, 'hover').passes).toBe(false)
    expect(wordsOf({ hover, pressed: { words: '#000000' } }, 'pressed').passes).toBe(true)
    expect(
      contrastOf({ ...slab, focus: { colour: 'paper', width: 3 } }, DEFAULT_PALETTE, () => undefined).find(
        result => result.part === 'mark',
      ),
    ).toMatchObject({ passes: false, ratio: 1 })
  })

  it('holds the second line to its own size, weight and colour, in each state', () => {
    const grey: Partial<Appearance> = { noteColour: '#777777', fill: { kind: 'plain', colour: '#FFFFFF' }, words: '#000000' }
    const note = (appearance: Partial<Appearance>, state = 'normal') =>
      contrastOf({ ...slab, hover: {}, ...grey, ...appearance }, DEFAULT_PALETTE, () => undefined).find(
        result => result.state === state && result.part === 'note',
      )!
    const second = { size: 24, weight: 400 as const, gap: 2, above: false }
    expect(note({}).passes).toBe(false)
    expect(note({ second }).passes).toBe(true)
    expect(note({ second: { ...second, size: 19 } }).passes).toBe(false)
    expect(note({ second: { ...second, size: 19, weight: 700 } }).passes).toBe(true)
    expect(note({ hover: { note: '#000000' } }, 'hover').passes).toBe(true)
    const failing = note({ noteColour: null, hover: { note: '#EEEEEE' } }, 'hover')
    expect(failing.passes).toBe(false)
    const mended = withNearest({ ...slab, ...grey, hover: { note: '#EEEEEE' } }, failing)!
    expect(note({ ...mended }, 'hover').passes).toBe(true)
  })

  it('holds the icon to the colour it has in each state', () => {
    const icon = { name: 'kiln', path: 'M1 2L3 4Z', place: 'before' as const, size: 20, gap: 4, colour: null }
    const found = (hover: Appearance['hover']) =>
      contrastOf(
        { ...slab, icon, fill: { kind: 'plain', colour: '#000000' }, words: '#FFFFFF', hover },
        DEFAULT_PALETTE,
        () => undefined,
      ).find(result => result.state === 'hover' && result.part === 'icon')!
    expect(found({ icon: '#FFFFFF' }).passes).toBe(true)
    expect(found({ icon: '#222222' }).passes).toBe(false)
  })

  it('offers a colour that passes, and the nearest one', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 0xffffff }), fc.integer({ min: 0, max: 0xffffff }), (a, b) => {
        const [words, ground] = [a, b].map(value => `#${value.toString(16).padStart(6, '0')}`) as [string, string]
        const nearest = nearestPassing(words, [ground], 4.5)!
        expect(contrast(nearest, ground)).toBeGreaterThanOrEqual(4.5)
        if (contrast(words, ground) >= 4.5) expect(nearest).toBe(words.toUpperCase())
      }),
    )
    expect(nearestPassing('#808080', ['#000000', '#FFFFFF'], 4.5)).toBe('#767676')
    expect(nearestPassing('#808080', ['#000000', '#808080', '#FFFFFF'], 4.5)).toBeUndefined()
  })
})
