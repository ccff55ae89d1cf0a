import type { Passage } from '../find/passage'
import { escapeHtml } from '../page/escape'

/** A passage with what was looked for marked in it. */
export const passageHtml = (passage: Passage): string =>
  passage.map((piece, index) => (index % 2 ? `<mark>${escapeHtml(piece)}</mark>` : escapeHtml(piece))).join('')
