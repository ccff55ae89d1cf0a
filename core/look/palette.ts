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
