import { describe, expect, it } from 'vitest'
import { ICONS } from '../../app/editor/icons'
import { appearanceSchema, overridesBetween, overridesSchema } from './appearance'
import { BUILT_IN_LOOKS } from './builtin'
import { appearanceCss } from './buttonCss'
import { ButtonStyles } from './styles'

const slab = BUILT_IN_LOOKS[0]!.appearance
const pictureOf = (file: string) => (file === 'tile' ? '/pictures/tile.png?width=960&v=1' : undefined)
const lookOf = (id: string) => BUILT_IN_LOOKS.find(look => look.id === id)?.appearance

describe('the styles of a page', () => {
  it('hold the looks that are worn and no others, each once', () => {
    const styles = new ButtonStyles(lookOf, pictureOf)
    expect([{ look: 'rim' }, { look: 'rim', own: null }, { look: 'rim', own: {} }].map(worn => styles.wear(worn).className)).toEqual([
      'tr-look-rim',
      'tr-look-rim',
      'tr-look-rim',
    ])
    expect(styles.css).toBe(appearanceCss('tr-look-rim', lookOf('rim')!, pictureOf))
  })

  it('give buttons that differ in the same way one class, and one whose look is gone the first look', () => {
    const styles = new ButtonStyles(lookOf, pictureOf)
    const own = { radius: 30 }
    expect(styles.wear({ look: 'slab', own }).className).toBe(styles.wear({ look: 'slab', own: { ...own } }).className)
    expect(styles.wear({ look: 'slab', own: { radius: 31 } }).className).not.toBe(styles.wear({ look: 'slab', own }).className)
    expect(styles.wear({ look: 'gone' }).appearance).toEqual(slab)
    expect(styles.css).toContain('border-radius:1.875rem')
  })
})

describe('the second line', () => {
  const css = (own: Partial<typeof slab>) => appearanceCss('x', { ...slab, ...own }, pictureOf)
  const second = { size: 12, weight: 700 as const, gap: 8, above: false }

  it('has a size, a weight and a distance of its own', () => {
    expect(css({ second })).toContain('.x .tr-note{font-size:0.75rem;font-weight:700;margin:0.5rem 0 0}')
    expect(css({ second: null })).not.toMatch(/tr-note\{font-size/)
  })

  it('stands above the label while it is read after it, and at the far end where it is put there', () => {
    expect(css({ second: { ...second, above: true } })).toMatch(
      /margin:0 0 0\.5rem.*\n\.tr-page \.x\{display:inline-flex;flex-direction:column-reverse\}/,
    )
    expect(css({ second: { ...second, above: true }, arrange: 'ends' })).not.toContain('column-reverse')
  })

  it('and the icon have colours of their own in each state', () => {
    const rules = css({ hover: { note: 'ink', icon: '#FF0000' } })
    expect(rules).toContain(':hover .tr-note{color:var(--ink)}')
    expect(rules).toContain(':hover .tr-icon{color:#FF0000}')
  })

  it('is as it always was in a look that says nothing of it', () => {
    const { second: _, ...before } = slab
    expect(appearanceSchema.parse(before)).toEqual({ ...before, second: null })
    expect(overridesSchema.parse({})).toEqual({})
    expect(overridesBetween(before as typeof slab, { ...slab, second })).toEqual({ second })
    expect(overridesBetween(before as typeof slab, slab)).toEqual({})
  })
})

describe('what a button has otherwise', () => {
  it('is what differs, however the parts are ordered', () => {
    const { padding, ...rest } = slab
    expect(overridesBetween(slab, { ...rest, padding: { x: padding.x, y: padding.y } })).toEqual({})
    expect(overridesBetween(slab, { ...slab, radius: 0, noteColour: null })).toEqual({ radius: 0 })
    // No shadow under the pointer is something else than the usual one there.
    expect(overridesBetween({ ...slab, hover: {} }, { ...slab, hover: { shadow: null } })).toEqual({ hover: { shadow: null } })
  })

  it.each([
    ['a length beyond all measure', { radius: 1e9 }],
    ['a colour that is CSS', { words: 'red;}body{display:none' }],
    ['an address for a fill', { fill: { kind: 'plain', colour: 'url(//x)' } }],
    ['markup for an icon', { icon: { name: 'x', path: 'M0 0"/><script>', place: 'before', size: 20, gap: 4, colour: null } }],
    ['one stop of a gradient', { fill: { kind: 'gradient', angle: 0, stops: [{ colour: 'ink', at: 0 }] } }],
  ])('%s is refused', (_what, own) => expect(overridesSchema.safeParse(own).success).toBe(false))
})

it('every icon that is offered can be worn', () => {
  const icon = appearanceSchema.shape.icon
  for (const { name, path } of ICONS)
    expect(icon.safeParse({ name, path, place: 'before', size: 20, gap: 4, colour: null }), name).toMatchObject({ success: true })
  expect(new Set(ICONS.map(({ name }) => name)).size).toBe(ICONS.length)
})
