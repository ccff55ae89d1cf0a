import { defineConfig, parse } from '@terrazzo/parser'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { WEIGHTS, appearanceSchema, type Appearance, type Fill } from './appearance'
import { BUILT_IN_LOOKS } from './builtin'
import { ROLES } from './colour'
import { DEFAULT_PALETTE } from './palette'
import { fromTokens, toTokens } from './tokens'

const colour = fc.oneof(
  fc.constantFrom(...ROLES),
  fc.integer({ min: 0, max: 0xffffff }).map(value => `#${value.toString(16).padStart(6, '0')}`.toUpperCase()),
)
const whole = (min: number, max: number) => fc.integer({ min, max })
const fill: fc.Arbitrary<Fill> = fc.oneof(
  fc.constant({ kind: 'none' as const }),
  fc.record({ kind: fc.constant('plain' as const), colour }),
  fc.record({
    kind: fc.constant('gradient' as const),
    angle: whole(0, 360),
    stops: fc.array(fc.record({ colour, at: whole(0, 100) }), { minLength: 2, maxLength: 5 }),
  }),
  fc.record({ kind: fc.constant('picture' as const), file: fc.string({ minLength: 1, maxLength: 40 }), colour, veil: whole(0, 100) }),
)
const shadow = fc.record({ x: whole(-40, 40), y: whole(-40, 40), blur: whole(0, 80), colour, strength: whole(0, 100) })
const state = fc.record(
  { fill, words: colour, note: colour, icon: colour, border: colour, shadow: fc.option(shadow) },
  { requiredKeys: [] },
)
const appearance: fc.Arbitrary<Appearance> = fc.record({
  width: fc.oneof(fc.constantFrom('fit' as const, 'fill' as const), whole(40, 1000)),
  arrange: fc.constantFrom('stacked' as const, 'ends' as const),
  padding: fc.record({ y: whole(0, 80), x: whole(0, 160) }),
  radius: whole(0, 100),
  border: fc.record({ width: whole(0, 20), sides: fc.constantFrom('all' as const, 'ends' as const), colour }),
  fill,
  shadow: fc.option(shadow),
  words: colour,
  noteColour: fc.option(colour),
  second: fc.option(fc.record({ size: whole(8, 48), weight: fc.constantFrom(...WEIGHTS), gap: whole(0, 40), above: fc.boolean() })),
  underline: fc.boolean(),
  size: whole(10, 48),
  weight: fc.constantFrom(...WEIGHTS),
  icon: fc.option(
    fc.record({
      name: fc.string({ maxLength: 60 }),
      path: fc.constant('M1 2L3 4Z'),
      place: fc.constantFrom('before' as const, 'above' as const),
      size: whole(8, 96),
      gap: whole(0, 48),
      colour: fc.option(colour),
    }),
  ),
  distance: whole(0, 80),
  hover: state,
  pressed: state,
  focus: fc.record({ colour, width: whole(2, 8) }),
  change: whole(0, 1000),
})
// Names people give, and those that tokens may not have.
const name = fc.string({ minLength: 1, maxLength: 60 }).filter(text => text.trim() === text && text.length > 0)

describe('looks as design tokens', () => {
  it('come back just as they went out', () => {
    fc.assert(
      fc.property(fc.array(fc.record({ name, appearance }), { minLength: 1, maxLength: 3 }), looks => {
        const { looks: back, palette } = fromTokens(JSON.parse(JSON.stringify(toTokens(looks, DEFAULT_PALETTE))))
        expect(back).toEqual(looks)
        expect(palette).toEqual(DEFAULT_PALETTE)
      }),
      { numRuns: 300 },
    )
  })

  // Another reader of the format: the parser of Terrazzo, which refuses what is not as the format has it.
  it('are read by another program, colours of the palette followed', async () => {
    const made = BUILT_IN_LOOKS.map(look => ({
      name: look.name,
      appearance: {
        ...look.appearance,
        shadow: { x: 0, y: 3, blur: 8, colour: 'ink' as const, strength: 25 },
        fill: {
          kind: 'gradient' as const,
          angle: 180,
          stops: [
            { colour: 'accent' as const, at: 0 },
            { colour: '#FF0000', at: 100 },
          ],
        },
      },
    }))
    const cwd = new URL('file:///tokens/')
    const read = async (tokens: unknown) =>
      (
        await parse([{ filename: new URL('looks.tokens.json', cwd), src: JSON.stringify(tokens) }], {
          config: defineConfig(
            {
              lint: {
                rules: {
                  'core/valid-color': 'error',
                  'core/valid-dimension': 'error',
                  'core/valid-border': 'error',
                  'core/valid-shadow': 'error',
                  'core/valid-gradient': 'error',
                  'core/valid-duration': 'error',
                  'core/valid-font-weight': 'error',
                },
              },
            },
            { cwd },
          ),
        })
      ).tokens
    const tokens = await read(toTokens(made, DEFAULT_PALETTE))
    expect(tokens['looks.1 Slab.words']).toMatchObject({ $type: 'color', $value: { colorSpace: 'srgb', components: [1, 1, 1] } })
    expect(tokens['looks.1 Slab.padding-x']).toMatchObject({ $type: 'dimension', $value: { value: 23, unit: 'px' } })
    expect(tokens['looks.2 Rim.fill']!.$type).toBe('gradient')
    expect(tokens['looks.3 Strap.change']).toMatchObject({ $type: 'duration', $value: { value: 120, unit: 'ms' } })
    await expect(read({ broken: { $type: 'dimension', $value: '12 parsecs' } })).rejects.toThrow()
  })

  const [slab] = BUILT_IN_LOOKS
  const tokensWith = (change: (look: Record<string, unknown>) => void) => {
    const tokens = JSON.parse(JSON.stringify(toTokens([slab!], DEFAULT_PALETTE))) as { looks: Record<string, Record<string, unknown>> }
    change(tokens.looks['1 Slab']!)
    return tokens
  }

  it('follow aliases, take rem and seconds, and fill in what is left out', () => {
    const tokens = tokensWith(look => {
      look.words = { $type: 'color', $value: '{brand.main}' }
      look.size = { $type: 'dimension', $value: { value: 1.25, unit: 'rem' } }
      look.change = { $type: 'duration', $value: { value: 0.2, unit: 's' } }
      delete look.radius
    })
    Object.assign(tokens, {
      brand: {
        main: { $type: 'color', $value: '{brand.base}' },
        base: { $type: 'color', $value: { colorSpace: 'srgb', components: [1, 0, 0.5] } },
      },
    })
    expect(fromTokens(tokens).looks[0]!.appearance).toMatchObject({
      words: '#FF0080',
      size: 20,
      change: 200,
      radius: slab!.appearance.radius,
    })
  })

  it.each([
    ['nothing', null, /no design tokens/],
    ['a list', [], /no design tokens/],
    ['other tokens', { spacing: { $value: 1 } }, /neither/],
    ['an alias into the void', tokensWith(look => (look.words = { $value: '{nowhere}' })), /points at nowhere/],
    ['an alias to itself', { ...tokensWith(look => (look.words = { $value: '{a.b}' })), a: { b: { $value: '{a.b}' } } }, /points at/],
    ['a colour in words', tokensWith(look => (look.words = { $value: 'red' })), /looks\.1 Slab\.words/],
    ['a size beyond all measure', tokensWith(look => (look.size = { $value: { value: 9000, unit: 'px' } })), /size/],
    [
      'a script for an icon',
      tokensWith(
        look =>
          (look.$extensions = {
            'example.trough': { icon: { name: 'x', path: '"/><script>', place: 'before', size: 20, gap: 4, colour: null } },
          }),
      ),
      /icon\.path/,
    ],
    ['the path to all objects', tokensWith(look => (look.words = { $value: '{__proto__.x}' })), /points at/],
  ])('%s is refused with words', (_what, input, detail) => {
    expect(() => fromTokens(input)).toThrow(expect.objectContaining({ status: 422, detail: expect.stringMatching(detail) }))
  })

  it('the looks that come with Trough fit the schema', () => {
    for (const look of BUILT_IN_LOOKS) expect(appearanceSchema.parse(look.appearance)).toEqual(look.appearance)
  })
})
