import { z } from 'zod'
import { Problem } from '../problem'
import { appearanceSchema, type Appearance, type Fill, type Shadow } from './appearance'
import { DEFAULT_LOOK } from './builtin'
import { channelsOf, toHex } from './channels'
import { ROLES, type Colour, type Role } from './colour'
import { lookNameSchema, type NewLook } from './look'
import { paletteSchema, type Palette } from './palette'

/**
 * Looks as design tokens: the format of the Design Tokens Community Group of the W3C, "Design Tokens Format Module"
 * 2025.10. What that format has no type for stands under `$extensions`.
 */

/** Under this key stand the parts of a look that are no tokens. */
const OURS = 'example.trough'

interface Token {
  $value: unknown
  $type?: string
  $extensions?: Record<string, unknown>
}
type Group = { [name: string]: unknown }

const px = (value: number) => ({ value, unit: 'px' })
const colourValue = (colour: Colour, alpha?: number): unknown =>
  ROLES.includes(colour as Role) && alpha === undefined
    ? `{palette.${colour}}`
    : {
        colorSpace: 'srgb',
        components: channelsOf(colour).map(channel => Math.round((channel / 255) * 10_000) / 10_000),
        ...(alpha !== undefined && { alpha }),
        hex: colour.toLowerCase(),
      }

const token = ($type: string, $value: unknown, extra?: Record<string, unknown>): Token => ({
  $type,
  $value,
  ...(extra && { $extensions: { [OURS]: extra } }),
})

function fillToken(fill: Fill): Token | undefined {
  switch (fill.kind) {
    case 'none':
      return undefined
    case 'plain':
      return token('color', colourValue(fill.colour))
    case 'gradient':
      return token(
        'gradient',
        fill.stops.map(({ colour, at }) => ({ color: colourValue(colour), position: at / 100 })),
        { angle: fill.angle },
      )
    // The format has no type for pictures: for others it is the colour that lies over it.
    case 'picture':
      return token('color', colourValue(fill.colour), { picture: fill.file, veil: fill.veil })
  }
}

/** A colour of the palette in a shadow keeps its part: the strength beside it is ours, and in the alpha for others. */
const shadowToken = ({ x, y, blur, colour, strength }: Shadow, palette: Palette): Token =>
  token(
    'shadow',
    {
      color: colourValue(ROLES.includes(colour as Role) ? palette[colour as Role] : colour, strength / 100),
      offsetX: px(x),
      offsetY: px(y),
      blur: px(blur),
      spread: px(0),
    },
    { colour, strength },
  )

const given = (tokens: Record<string, Token | Group | undefined>): Group =>
  Object.fromEntries(Object.entries(tokens).filter(([, value]) => value !== undefined))

function lookGroup(name: string, appearance: Appearance, palette: Palette): Group {
  const {
    width,
    arrange,
    padding,
    radius,
    border,
    fill,
    shadow,
    words,
    noteColour,
    second,
    underline,
    size,
    weight,
    icon,
    distance,
    focus,
    change,
  } = appearance
  const state = (change: Appearance['hover']) =>
    given({
      fill: change.fill && fillToken(change.fill),
      words: change.words ? token('color', colourValue(change.words)) : undefined,
      note: change.note ? token('color', colourValue(change.note)) : undefined,
      icon: change.icon ? token('color', colourValue(change.icon)) : undefined,
      border: change.border ? token('color', colourValue(change.border)) : undefined,
      shadow: change.shadow ? shadowToken(change.shadow, palette) : undefined,
      // What ends in a state is no token.
      ...(change.fill?.kind === 'none' || change.shadow === null
        ? {
            $extensions: {
              [OURS]: { ...(change.fill?.kind === 'none' && { fill: 'none' }), ...(change.shadow === null && { shadow: 'none' }) },
            },
          }
        : {}),
    })
  return {
    $extensions: { [OURS]: { name, width, arrange, sides: border.sides, underline, icon, second } },
    ...given({
      'fill': fillToken(fill),
      'words': token('color', colourValue(words)),
      'note': noteColour ? token('color', colourValue(noteColour)) : undefined,
      'padding-y': token('dimension', px(padding.y)),
      'padding-x': token('dimension', px(padding.x)),
      'radius': token('dimension', px(radius)),
      'border': token('border', { color: colourValue(border.colour), width: px(border.width), style: 'solid' }),
      'shadow': shadow ? shadowToken(shadow, palette) : undefined,
      'size': token('dimension', px(size)),
      'weight': token('fontWeight', weight),
      'distance': token('dimension', px(distance)),
      'focus': token('border', { color: colourValue(focus.colour), width: px(focus.width), style: 'solid' }),
      'change': token('duration', { value: change, unit: 'ms' }),
      'hover': state(appearance.hover),
      'pressed': state(appearance.pressed),
    }),
  }
}

/** Looks and the palette that feeds them as a design tokens file. */
export function toTokens(looks: NewLook[], palette: Palette): Group {
  return {
    palette: { $type: 'color', ...Object.fromEntries(ROLES.map(role => [role, { $value: colourValue(palette[role], 1) }])) },
    // Names of tokens hold no dots and braces, and do not begin with a dollar sign.
    looks: Object.fromEntries(
      looks.map(({ name, appearance }, index) => [
        `${index + 1} ${name.replace(/[.{}$]/g, ' ').trim()}`,
        lookGroup(name, appearance, palette),
      ]),
    ),
  }
}

const refused = (detail: string) => new Problem(422, 'These looks cannot be taken in.', detail)

const isGroup = (value: unknown): value is Group => typeof value === 'object' && value !== null && !Array.isArray(value)

const dimensionSchema = z
  .object({ value: z.number(), unit: z.enum(['px', 'rem']) })
  .transform(({ value, unit }) => (unit === 'rem' ? value * 16 : value))
const durationSchema = z
  .object({ value: z.number(), unit: z.enum(['ms', 's']) })
  .transform(({ value, unit }) => (unit === 's' ? value * 1000 : value))
const srgbSchema = z
  .object({ colorSpace: z.literal('srgb'), components: z.tuple([z.number(), z.number(), z.number()]) })
  .transform(({ components }) => toHex(components.map(component => Math.min(1, Math.max(0, component)) * 255)))
const ALIAS = /^\{([^{}]+)\}$/
/** Aliases may lead to aliases, but not for ever. */
const MOST_ALIASES = 20

/** Reads values of one tokens file. */
function createReader(root: Group) {
  const at = (path: string): unknown =>
    path.split('.').reduce<unknown>((place, name) => (isGroup(place) && Object.hasOwn(place, name) ? place[name] : undefined), root)

  function resolve(value: unknown, path: string, left = MOST_ALIASES): unknown {
    const alias = typeof value === 'string' ? ALIAS.exec(value)?.[1] : undefined
    if (alias === undefined) return value
    const found = at(alias)
    if (!left || !isGroup(found) || !('$value' in found)) throw refused(`${path} points at ${alias}, where there is no value.`)
    return resolve(found.$value, path, left - 1)
  }

  function read<Schema extends z.ZodType>(schema: Schema, value: unknown, path: string): z.output<Schema> {
    const result = schema.safeParse(resolve(value, path))
    if (!result.success) throw refused(`${path} is not what it should be: ${result.error.issues[0]!.message}`)
    return result.data
  }

  function colour(value: unknown, path: string): Colour {
    const role = typeof value === 'string' ? /^\{palette\.(\w+)\}$/.exec(value)?.[1] : undefined
    return role && ROLES.includes(role as Role) ? (role as Role) : read(srgbSchema, value, path)
  }

  return { read, colour, resolve }
}
type Reader = ReturnType<typeof createReader>

const oursIn = (group: Group): Group => (isGroup(group.$extensions) && isGroup(group.$extensions[OURS]) ? group.$extensions[OURS] : {})

function readFill(value: unknown, path: string, { read, colour }: Reader): Fill | undefined {
  if (!isGroup(value)) return undefined
  const { angle, picture, veil } = oursIn(value)
  if (value.$type !== 'gradient') {
    const shown = colour(value.$value, path)
    return typeof picture === 'string'
      ? { kind: 'picture', file: picture, colour: shown, veil: veil as number }
      : { kind: 'plain', colour: shown }
  }
  const stops = read(z.array(z.object({ color: z.unknown(), position: z.number() })), value.$value, path)
  return {
    kind: 'gradient',
    angle: typeof angle === 'number' ? angle : 180,
    stops: stops.map(stop => ({ colour: colour(stop.color, path), at: Math.round(stop.position * 100) })),
  }
}

function readShadow(value: unknown, path: string, { read, colour }: Reader): Shadow | undefined {
  if (!isGroup(value)) return undefined
  const { color, offsetX, offsetY, blur } = read(
    z.object({ color: z.unknown(), offsetX: dimensionSchema, offsetY: dimensionSchema, blur: dimensionSchema }),
    value.$value,
    path,
  )
  const ours = oursIn(value)
  const alpha = isGroup(color) && typeof color.alpha === 'number' ? color.alpha : 1
  return {
    x: offsetX,
    y: offsetY,
    blur,
    ...('colour' in ours
      ? { colour: ours.colour as Colour, strength: ours.strength as number }
      : { colour: colour(color, path), strength: alpha * 100 }),
  }
}

function readState(value: unknown, path: string, reader: Reader): Appearance['hover'] {
  if (!isGroup(value)) return {}
  const ours = oursIn(value)
  const colourAt = (name: string) => (isGroup(value[name]) ? reader.colour(value[name].$value, `${path}.${name}`) : undefined)
  return given({
    fill: ours.fill === 'none' ? { kind: 'none' } : readFill(value.fill, `${path}.fill`, reader),
    words: colourAt('words') as never,
    note: colourAt('note') as never,
    icon: colourAt('icon') as never,
    border: colourAt('border') as never,
    shadow: (ours.shadow === 'none' ? null : readShadow(value.shadow, `${path}.shadow`, reader)) as never,
  }) as Appearance['hover']
}

function readLook(key: string, group: Group, reader: Reader): NewLook {
  const path = `looks.${key}`
  const usual = DEFAULT_LOOK.appearance
  const ours = oursIn(group)
  const valueOf = <Schema extends z.ZodType>(name: string, schema: Schema, otherwise: z.output<Schema>): z.output<Schema> =>
    isGroup(group[name]) ? reader.read(schema, group[name].$value, `${path}.${name}`) : otherwise
  const colourOf = (name: string) => (isGroup(group[name]) ? reader.colour(group[name].$value, `${path}.${name}`) : undefined)
  const edgeOf = (name: string) => {
    if (!isGroup(group[name])) return undefined
    const { color, width } = reader.read(z.object({ color: z.unknown(), width: dimensionSchema }), group[name].$value, `${path}.${name}`)
    return { colour: reader.colour(color, `${path}.${name}`), width }
  }
  const made = {
    width: ours.width ?? usual.width,
    arrange: ours.arrange ?? usual.arrange,
    underline: ours.underline ?? usual.underline,
    icon: ours.icon ?? null,
    second: ours.second ?? null,
    padding: { y: valueOf('padding-y', dimensionSchema, usual.padding.y), x: valueOf('padding-x', dimensionSchema, usual.padding.x) },
    radius: valueOf('radius', dimensionSchema, usual.radius),
    size: valueOf('size', dimensionSchema, usual.size),
    distance: valueOf('distance', dimensionSchema, usual.distance),
    weight: valueOf('weight', z.number(), usual.weight),
    change: valueOf('change', durationSchema, usual.change),
    border: { sides: ours.sides ?? 'all', ...(edgeOf('border') ?? { colour: usual.border.colour, width: 0 }) },
    focus: edgeOf('focus') ?? usual.focus,
    fill: readFill(group.fill, `${path}.fill`, reader) ?? { kind: 'none' },
    shadow: readShadow(group.shadow, `${path}.shadow`, reader) ?? null,
    words: colourOf('words') ?? usual.words,
    noteColour: colourOf('note') ?? null,
    hover: readState(group.hover, `${path}.hover`, reader),
    pressed: readState(group.pressed, `${path}.pressed`, reader),
  }
  const checked = appearanceSchema.safeParse(made)
  if (!checked.success) throw refused(`${path}.${checked.error.issues[0]!.path.join('.')}: ${checked.error.issues[0]!.message}`)
  const name = lookNameSchema.safeParse(ours.name ?? key)
  if (!name.success) throw refused(`${path}: ${name.error.issues[0]!.message}`)
  return { name: name.data, appearance: checked.data }
}

/**
 * Looks, and the palette where it is whole, from a design tokens file.
 *
 * @throws Problem 422 saying what in it cannot be used
 */
export function fromTokens(input: unknown): { looks: NewLook[]; palette?: Palette } {
  if (!isGroup(input)) throw refused('The file holds no design tokens. Choose a JSON file of the Design Tokens format.')
  const reader = createReader(input)
  const groups = isGroup(input.looks)
    ? Object.entries(input.looks).filter((entry): entry is [string, Group] => isGroup(entry[1]) && !entry[0].startsWith('$'))
    : []
  const colours = isGroup(input.palette) ? input.palette : {}
  const palette = paletteSchema.safeParse(
    Object.fromEntries(
      ROLES.flatMap(role => (isGroup(colours[role]) ? [[role, reader.read(srgbSchema, colours[role].$value, `palette.${role}`)]] : [])),
    ),
  )
  if (!groups.length && !palette.success) throw refused('There is neither a group “looks” nor a whole “palette” in the file.')
  return { looks: groups.map(([key, group]) => readLook(key, group, reader)), ...(palette.success && { palette: palette.data }) }
}
