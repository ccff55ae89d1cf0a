/** The colours of a published site, each `#rrggbb`. */
export interface Palette {
  paper: string
  ink: string
  /** secondary words: notes, footer */
  soft: string
  /** buttons and links */
  accent: string
  accentDark: string
  onAccent: string
  line: string
}

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
  const channel = (at: number) => {
    const [a, b] = [one, other].map(colour => Number.parseInt(colour.slice(at, at + 2), 16)) as [number, number]
    return Math.round(a * share + b * (1 - share)).toString(16).padStart(2, '0')
  }
  return `#${channel(1)}${channel(3)}${channel(5)}`.toUpperCase()
}

/** The palette on each background a section can have. */
export function tonePalettes(palette: Palette): Record<'plain' | 'tint' | 'deep', Palette> {
  const { paper, ink, accent, accentDark, line } = palette
  return {
    plain: palette,
    tint: { ...palette, paper: mix(line, paper, 0.4), line: mix(ink, line, 0.12) },
    // Light words on the darkest colour; the button is turned inside out.
    deep: { paper: accentDark, ink: '#FFFFFF', soft: mix('#FFFFFF', accentDark, 0.82), accent: '#FFFFFF', accentDark: mix('#FFFFFF', accent, 0.84), onAccent: accentDark, line: mix('#FFFFFF', accentDark, 0.3) },
  }
}

/** The palette as custom properties of CSS; every rule of a page takes its colours from them. */
export function paletteCss({ paper, ink, soft, accent, accentDark, onAccent, line }: Palette): string {
  return `--paper:${paper};--ink:${ink};--soft:${soft};--accent:${accent};--accent-dark:${accentDark};--on-accent:${onAccent};--rule:${line}`
}
