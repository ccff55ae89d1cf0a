import type { Palette } from '../look/palette'
import { escapeHtml } from './escape'

/** The site's icon where its owner chose none: its initial in the colour of its buttons. */
export function iconSvg(siteName: string, { accent, onAccent }: Palette): string {
  const [initial = ''] = siteName.trim().normalize('NFC')
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64"><rect width="64" height="64" rx="6" fill="${accent}"/><text x="32" y="34" fill="${onAccent}" font-family="Georgia,serif" font-size="42" font-weight="700" text-anchor="middle" dominant-baseline="central">${escapeHtml(initial.toUpperCase())}</text></svg>\n`
}
