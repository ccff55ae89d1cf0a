import { z } from 'zod'

/**
 * Colours of the palette by the part they play: what takes one of these changes with the palette and with the background of its section.
 */
export const ROLES = ['paper', 'ink', 'soft', 'accent', 'accentDark', 'onAccent', 'line'] as const
export type Role = (typeof ROLES)[number]

export const hexSchema = z
  .string()
  .regex(/^#[0-9a-f]{6}$/i, 'Give a colour as # and six digits, such as #1F5A57.')
  .transform(text => text.toUpperCase())
/** A colour of the palette, or one of its own. */
export const colourSchema = z.union([z.enum(ROLES), hexSchema])
export type Colour = z.infer<typeof colourSchema>

/** The custom property of CSS that carries each colour of the palette. */
export const ROLE_PROPERTIES: Record<Role, string> = {
  paper: '--paper',
  ink: '--ink',
  soft: '--soft',
  accent: '--accent',
  accentDark: '--accent-dark',
  onAccent: '--on-accent',
  line: '--rule',
}

const isRole = (colour: Colour): colour is Role => ROLES.includes(colour as Role)

export const cssColour = (colour: Colour): string => (isRole(colour) ? `var(${ROLE_PROPERTIES[colour]})` : colour)

/** `#rrggbb` of a colour under a palette. */
export const hexOf = (colour: Colour, palette: Readonly<Record<Role, string>>): string => (isRole(colour) ? palette[colour] : colour)
