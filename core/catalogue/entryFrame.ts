import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'
import { pageHref } from '../page/href'

interface Led {
  title: string
  /** from the top of the site */
  slug: string
}

/** What stands around an entry on its page. */
export interface EntryFrame {
  /** the page that lists it; undefined where none is live */
  list: Led | undefined
  before: Led | undefined
  after: Led | undefined
}

/** The way back to the list an entry stands in, above its name. */
export const wayHtml = ({ list }: EntryFrame, speech: Speech): string =>
  list
    ? `<nav class="tr-way" aria-label="${escapeHtml(speech.say('wayHere'))}"><a class="tr-link" href="${pageHref(list.slug)}">${escapeHtml(list.title)}</a></nav>\n`
    : ''

/** The ways to the entries before and after. */
export function neighboursHtml({ before, after }: EntryFrame, speech: Speech): string {
  if (!before && !after) return ''
  const led = (to: Led | undefined, rel: 'prev' | 'next', word: 'entryBefore' | 'entryAfter') =>
    to
      ? `<a class="tr-link" rel="${rel}" href="${pageHref(to.slug)}">${escapeHtml(speech.say(word, { title: to.title }))}</a>`
      : '<span></span>'
  return `\n<nav class="tr-leafing tr-neighbours" aria-label="${escapeHtml(speech.say('neighbours'))}">${led(before, 'prev', 'entryBefore')}${led(after, 'next', 'entryAfter')}</nav>`
}

export const FRAME_CSS = `
.tr-way{margin-block:0 .6em}
.tr-page>.tr-neighbours{margin-top:2.6em;padding-top:.6em;border-top:1px solid var(--rule)}
@media print{.tr-way,.tr-neighbours{display:none}}`
