import { withOverrides, type Appearance, type Overrides } from './appearance'
import { DEFAULT_LOOK } from './builtin'
import { appearanceCss } from './buttonCss'
import type { PictureOf } from './fillPictures'

/** What is worn on a button: a look by its identity, and what this one has otherwise. */
export interface Worn {
  look: string
  own?: Overrides | null
}

/** The appearance of a button; a look that is no longer there gives way to the first one. */
export const appearanceOf = ({ look, own }: Worn, lookOf: (id: string) => Appearance | undefined): Appearance =>
  withOverrides(lookOf(look) ?? DEFAULT_LOOK.appearance, own)

export const hasOverrides = ({ own }: Worn): boolean => !!own && Object.keys(own).length > 0

/** Gives the buttons of one page their classes, and the rules of just those at the end. */
export class ButtonStyles {
  readonly #lookOf: (id: string) => Appearance | undefined
  /** classes by what stands for the appearance, in the order they were first worn */
  readonly #classes = new Map<string, { className: string; appearance: Appearance }>()

  readonly #pictureOf: PictureOf

  constructor(lookOf: (id: string) => Appearance | undefined, pictureOf: PictureOf) {
    this.#lookOf = lookOf
    this.#pictureOf = pictureOf
  }

  wear(worn: Worn): { className: string; appearance: Appearance } {
    const own = hasOverrides(worn)
    const key = own ? JSON.stringify([worn.look, worn.own]) : worn.look
    const known = this.#classes.get(key)
    if (known) return known
    const made = {
      className: own ? `tr-own-${this.#classes.size + 1}` : `tr-look-${worn.look}`,
      appearance: appearanceOf(worn, this.#lookOf),
    }
    this.#classes.set(key, made)
    return made
  }

  get css(): string {
    return [...this.#classes.values()].map(({ className, appearance }) => appearanceCss(className, appearance, this.#pictureOf)).join('\n')
  }
}
