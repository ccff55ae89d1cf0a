import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'
import { LONGEST_QUESTION, SEARCH_PATH, searchFields, type SearchQuery } from './searchQuery'

/**
 * The field in which visitors write what they look for: a plain form, so that no script is needed.
 *
 * @param id of its field, one on the page
 * @param label what it says of itself; empty for the site's own words
 * @param kept what is asked for besides
 */
export function searchFormHtml(id: string, label: string, q: string, kept: Partial<SearchQuery>, speech: Speech): string {
  const hidden = searchFields(kept)
    .map(([name, value]) => `<input type="hidden" name="${name}" value="${escapeHtml(value)}">`)
    .join('')
  return `<form class="tr-seek" action="${SEARCH_PATH}" method="get" role="search">
<label for="${id}">${escapeHtml(label.trim() || speech.say('searchFiles'))}</label>
<input class="tr-field" id="${id}" type="search" name="q" value="${escapeHtml(q)}" maxlength="${LONGEST_QUESTION}">
<button class="tr-key-button" type="submit">${escapeHtml(speech.say('find'))}</button>${hidden}
</form>`
}
