import type { Appearance, Fill } from './appearance'

type Filled = Partial<Pick<Appearance, 'fill' | 'hover' | 'pressed'>>

/** The fills of an appearance, or of what a button has otherwise than its look. */
const fillsOf = ({ fill, hover, pressed }: Filled): Fill[] => [fill, hover?.fill, pressed?.fill].filter(each => each !== undefined)

/** Identities of the pictures a button is filled with, in all its states. */
export const fillPictures = (filled: Filled): string[] => [
  ...new Set(fillsOf(filled).flatMap(fill => (fill.kind === 'picture' ? [fill.file] : []))),
]

/** The appearance with each picture it is filled with decided anew; without one the colour of its veil is left. */
export function mapFillPictures<Of extends Filled>(filled: Of, decide: (file: string) => string | undefined): Of {
  const anew = (fill: Fill | undefined): Fill | undefined => {
    if (fill?.kind !== 'picture') return fill
    const file = decide(fill.file)
    return file === undefined ? { kind: 'plain', colour: fill.colour } : { ...fill, file }
  }
  const changed = { ...filled }
  if (filled.fill) changed.fill = anew(filled.fill)
  for (const state of ['hover', 'pressed'] as const)
    if (filled[state]?.fill) changed[state] = { ...filled[state], fill: anew(filled[state].fill) }
  return changed
}

/** More veil, in percent, under the pointer: it says that the button answers. */
const ANSWER = 15

/**
 * Another fill for a button. A picture stays where it is under the pointer, with a little more veil: the plain fill
 * a look has there would cover it.
 */
export function withFill({ fill: before, hover }: Pick<Appearance, 'fill' | 'hover'>, fill: Fill): Pick<Appearance, 'fill' | 'hover'> {
  const { fill: under, ...rest } = hover
  const follows =
    before.kind === 'picture'
      ? under?.kind === 'picture' && under.file === before.file
      : fill.kind === 'picture' && under?.kind !== 'picture'
  if (!follows) return { fill, hover }
  return { fill, hover: fill.kind === 'picture' ? { ...rest, fill: { ...fill, veil: Math.min(100, fill.veil + ANSWER) } } : rest }
}

/** Where the picture of a file is had, by its identity; undefined where it is not there. */
export type PictureOf = (file: string) => string | undefined
