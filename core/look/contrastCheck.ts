import { secondLineOf, type Appearance, type Fill } from './appearance'
import { mixedAlong } from './gradient'
import { LEAST, contrast, isLarge, nearestPassing } from './contrast'
import { hexOf, type Colour } from './colour'
import { mix, type Palette } from './palette'

export const STATES = ['normal', 'hover', 'pressed', 'focus'] as const
export type State = (typeof STATES)[number]
export type CheckedPart = 'words' | 'note' | 'icon' | 'mark'

/** How one part of a button stands out in one state, at the worst point of what is behind it. */
export interface ContrastResult {
  state: State
  part: CheckedPart
  /** 1 to 21 */
  ratio: number
  /** what WCAG 2.2 AA asks for */
  least: number
  passes: boolean
  /** the nearest colour that passes, where this one does not and there is one */
  nearest?: string
  /** over a picture: percent of veil with which all words of this state pass */
  veil?: number
}

/** Colours of a picture all over it, each `#rrggbb`, by the identity of its file; undefined while they are not known. */
export type SampleOf = (file: string) => string[] | undefined

/** `#rrggbb` of all that a fill shows: of a gradient its stops and the way between them, of a picture its samples under the veil. */
export function groundsOf(fill: Fill, palette: Palette, sampleOf: SampleOf): string[] {
  switch (fill.kind) {
    case 'none':
      return [palette.paper]
    case 'plain':
      return [hexOf(fill.colour, palette)]
    case 'gradient':
      return mixedAlong(fill.stops.map(({ colour, at }) => ({ colour: hexOf(colour, palette), at })))
    case 'picture': {
      const veil = hexOf(fill.colour, palette)
      return [veil, ...(sampleOf(fill.file) ?? []).map(sample => mix(veil, sample, fill.veil / 100))]
    }
  }
}

const VEIL_STEP = 5

/** The least veil, in percent, over a picture with which each colour has what it needs; undefined where none helps. */
export function leastVeil(fill: Fill, palette: Palette, sampleOf: SampleOf, read: { colour: string; least: number }[]): number | undefined {
  if (fill.kind !== 'picture') return undefined
  for (let veil = Math.ceil(fill.veil / VEIL_STEP) * VEIL_STEP; veil <= 100; veil += VEIL_STEP) {
    const grounds = groundsOf({ ...fill, veil }, palette, sampleOf)
    if (read.every(({ colour, least }) => grounds.every(ground => contrast(colour, ground) >= least))) return veil
  }
  return undefined
}

function judge(state: State, part: CheckedPart, colour: string, grounds: string[], least: number): ContrastResult {
  const ratio = Math.min(...grounds.map(ground => contrast(colour, ground)))
  const passes = ratio >= least
  return { state, part, ratio, least, passes, ...(!passes && { nearest: nearestPassing(colour, grounds, least) }) }
}

/** The contrast of each part of a button in each state under a palette (WCAG 2.2, 1.4.3 and 1.4.11). */
export function contrastOf(appearance: Appearance, palette: Palette, sampleOf: SampleOf): ContrastResult[] {
  const { noteColour, icon, size, weight, focus } = appearance
  const second = secondLineOf(appearance)
  const hex = (colour: Colour) => hexOf(colour, palette)
  const leastForWords = isLarge(size, weight) ? LEAST.large : LEAST.words
  const leastForNote = isLarge(second.size, second.weight) ? LEAST.large : LEAST.words
  const inState = (
    state: State,
    { fill, words }: Pick<Appearance, 'fill' | 'words'>,
    notesOwn: Colour | null,
    iconsOwn: Colour | null = icon?.colour ?? null,
  ) => {
    const grounds = groundsOf(fill, palette, sampleOf)
    const read: { part: CheckedPart; colour: string; least: number }[] = [
      { part: 'words', colour: hex(words), least: leastForWords },
      { part: 'note', colour: hex(notesOwn ?? words), least: leastForNote },
      ...(icon ? [{ part: 'icon' as const, colour: hex(iconsOwn ?? words), least: LEAST.mark }] : []),
    ]
    const veil = leastVeil(fill, palette, sampleOf, read)
    return read.map(({ part, colour, least }) => {
      const result = judge(state, part, colour, grounds, least)
      return result.passes || veil === undefined ? result : { ...result, veil }
    })
  }
  const changed = (state: 'hover' | 'pressed') => {
    // Whoever presses a button with the mouse is on it, too.
    const change = state === 'pressed' ? { ...appearance.hover, ...appearance.pressed } : appearance.hover
    // As the style sheet has it: a note follows the words where the fill changes with them.
    const { fill = appearance.fill, words = appearance.words } = change
    const note = change.note ?? (change.words && change.fill ? null : noteColour)
    const parts = inState(state, { fill, words }, note, change.icon ?? icon?.colour)
    return Object.keys(state === 'pressed' ? appearance.pressed : change).length ? parts : []
  }
  return [
    ...inState('normal', appearance, noteColour),
    ...changed('hover'),
    ...changed('pressed'),
    judge('focus', 'mark', hex(focus.colour), [palette.paper], LEAST.mark),
  ]
}

/** What of an appearance to change so that a part that cannot be read takes the nearest colour that can; nothing where there is none. */
export function withNearest(
  { icon, focus, hover, pressed }: Appearance,
  { state, part, nearest }: ContrastResult,
): Partial<Appearance> | undefined {
  if (!nearest) return undefined
  if (part === 'mark') return { focus: { ...focus, colour: nearest } }
  if (part === 'icon' && !icon) return undefined
  if (state === 'hover') return { hover: { ...hover, [part]: nearest } }
  if (state === 'pressed') return { pressed: { ...pressed, [part]: nearest } }
  if (part === 'note') return { noteColour: nearest }
  return part === 'icon' ? { icon: { ...icon!, colour: nearest } } : { words: nearest }
}
