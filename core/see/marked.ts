import { hitsIn } from '../find/passage'

/** What is found first has this identity, so that a link leads to it. */
export const FIRST_MARK = 'found'

/** Tags and character references, between which text stands. */
const NOT_TEXT = /(<[^>]*>|&(?:#\w+|\w+);)/

/**
 * HTML with each place marked at which a word begins with one of those looked for; the first has an identity.
 *
 * @param html well-formed, with `<`, `>` and `&` of its text as references
 * @param terms folded words
 */
export function markedHtml(html: string, terms: string[]): { html: string; count: number } {
  if (!terms.length) return { html, count: 0 }
  let count = 0
  const mark = (text: string) => {
    let marked = ''
    let at = 0
    for (const { start, end } of hitsIn(text, terms)) {
      // Two terms may find one word.
      if (start < at) continue
      marked += `${text.slice(at, start)}<mark${count++ ? '' : ` id="${FIRST_MARK}"`}>${text.slice(start, end)}</mark>`
      at = end
    }
    return marked + text.slice(at)
  }
  const pieces = html.split(NOT_TEXT).map((piece, index) => (index % 2 ? piece : mark(piece)))
  return { html: pieces.join(''), count }
}
