import { z } from 'zod'
import { channelsOf, toHex } from './channels'
import { luminance } from './contrast'
import { ROLES, ROLE_PROPERTIES, hexSchema, type Role } from './colour'

/** The colours of a published site, each `#rrggbb`: `soft` for notes and footer, `accent` for buttons and links. */
export const paletteSchema = z.object(Object.fromEntries(ROLES.map(role => [role, hexSchema])) as Record<Role, typeof hexSchema>)
export type Palette = z.infer<typeof paletteSchema>

export const DEFAULT_PALETTE: Palette = {
  paper: '#FCFBF8',
  ink: '#24211D',
  soft: '#5F5950',
  accent: '#1F5A57',
  accentDark: '#143F3D',
  onAccent: '#FFFFFF',
  line: '#DCD6CB',
}

/** `share` of one colour, 0 to 1, and the rest of another. */
export function mix(one: string, other: string, share: number): string {
  const [from, to] = [channelsOf(one), channelsOf(other)]
  return toHex(from.map((channel, index) => channel * share + to[index]! * (1 - share)))
}

export const TONES = ['plain', 'tint', 'deep'] as const
export type Tone = (typeof TONES)[number]

export const DEFAULT_DARK: Palette = {
  paper: '#1B1D1C',
  ink: '#ECE8E1',
  soft: '#B3ADA2',
  accent: '#7FC0B8',
  accentDark: '#A5D8D1',
  onAccent: '#10201F',
  line: '#3A3D3B',
}

/** Whether words are lighter than what they stand on. */
const isDark = ({ paper, ink }: Palette) => luminance(ink) > luminance(paper)

/** The palette on each background a section can have. */
export function tonePalettes(palette: Palette): Record<Tone, Palette> {
  const { paper, ink, accent, accentDark, line } = palette
  // In the dark nothing is turned inside out: the grounds differ a little.
  if (isDark(palette))
    return {
      plain: palette,
      tint: { ...palette, paper: mix(line, paper, 0.35), line: mix(ink, line, 0.12) },
      deep: { ...palette, paper: mix(accent, paper, 0.14), line: mix(accent, line, 0.3) },
    }
  return {
    plain: palette,
    tint: { ...palette, paper: mix(line, paper, 0.4), line: mix(ink, line, 0.12) },
    // Light words on the darkest colour; the button is turned inside out.
    deep: {
      paper: accentDark,
      ink: '#FFFFFF',
      soft: mix('#FFFFFF', accentDark, 0.82),
      accent: '#FFFFFF',
      accentDark: mix('#FFFFFF', accent, 0.84),
      onAccent: accentDark,
      line: mix('#FFFFFF', accentDark, 0.3),
    },
  }
}

/** The palette as custom properties of CSS; every rule of a page takes its colours from them. */
export const paletteCss = (palette: Palette): string => ROLES.map(role => `${ROLE_PROPERTIES[role]}:${palette[role]}`).join(';')
