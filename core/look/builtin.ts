import type { Appearance } from './appearance'
import type { Look } from './look'
import type { SiteStyle } from './siteStyle'

const shared = {
  arrange: 'stacked',
  padding: { y: 12, x: 23 },
  radius: 6,
  shadow: null,
  noteColour: null,
  second: null,
  underline: false,
  size: 17,
  weight: 600,
  icon: null,
  distance: 19,
  pressed: {},
  focus: { colour: 'ink', width: 3 },
  change: 120,
} satisfies Partial<Appearance>

const slab: Appearance = {
  ...shared,
  width: 'fit',
  border: { width: 2, sides: 'all', colour: 'accent' },
  fill: { kind: 'plain', colour: 'accent' },
  words: 'onAccent',
  hover: { fill: { kind: 'plain', colour: 'accentDark' }, border: 'accentDark' },
}
const rim: Appearance = {
  ...shared,
  width: 'fit',
  border: { width: 2, sides: 'all', colour: 'accent' },
  fill: { kind: 'plain', colour: 'paper' },
  words: 'accent',
  hover: { fill: { kind: 'plain', colour: 'accent' }, words: 'onAccent' },
}
const strap: Appearance = {
  ...shared,
  width: 'fill',
  arrange: 'ends',
  padding: { y: 14, x: 3 },
  radius: 0,
  border: { width: 1, sides: 'ends', colour: 'line' },
  fill: { kind: 'none' },
  words: 'ink',
  noteColour: 'soft',
  underline: true,
  hover: { words: 'accent' },
}
const bare: Appearance = {
  ...shared,
  width: 'fit',
  arrange: 'ends',
  padding: { y: 4, x: 0 },
  radius: 0,
  border: { width: 0, sides: 'all', colour: 'line' },
  fill: { kind: 'none' },
  words: 'soft',
  size: 16,
  weight: 400,
  distance: 2,
  hover: { words: 'ink' },
}

/** The looks that are always there, in the order they are offered. */
export const BUILT_IN_LOOKS: Look[] = [
  { id: 'slab', name: 'Slab', appearance: slab, builtIn: true },
  { id: 'rim', name: 'Rim', appearance: rim, builtIn: true },
  { id: 'strap', name: 'Strap', appearance: strap, builtIn: true },
  { id: 'bare', name: 'Bare', appearance: bare, builtIn: true },
]

/** Those that have the corners of the site. */
const CORNERED = ['slab', 'rim']
/** CSS pixels, by the corners of a site. */
export const CORNER = { square: 0, soft: 6, round: 16 } as const

/** The looks that are always there, as they belong to a style. */
export const builtInLooks = ({ corners }: Pick<SiteStyle, 'corners'>): Look[] =>
  BUILT_IN_LOOKS.map(look => (CORNERED.includes(look.id) ? { ...look, appearance: { ...look.appearance, radius: CORNER[corners] } } : look))

/** What a button gets whose look is no longer there. */
export const DEFAULT_LOOK = BUILT_IN_LOOKS[0]!
