import type { Speech } from '../language/speech'
import type { WordKey } from '../language/words/words'
import { escapeHtml } from '../page/escape'
import { isNarrowed, narrowingHtml } from './narrowingHtml'
import type { Behind } from '../gate/asks'
import { resultHtml } from './resultHtml'
import { searchFormHtml } from './searchForm'
import { RESULTS_PER_PAGE, type Results, type ShownResult } from './results'
import { searchHref, type SearchQuery, type SearchSort } from './searchQuery'

const SORTS: [SearchSort, WordKey][] = [
  ['fit', 'sortFit'],
  ['title', 'sortName'],
  ['-changed', 'sortNewest'],
  ['-size', 'sortSize'],
  ['-downloads', 'sortTaken'],
]
export interface SearchFacts {
  results: Results
  shown: ShownResult[]
  /** whether visitors may look at a file before they take it */
  sees: (file: ShownResult['item']) => boolean
  /** how they see it before they have passed its gates */
  behind: (file: ShownResult['item']) => Behind | undefined
  /** the way to the folder a file lies in, in words */
  placeOf: (file: ShownResult['item']) => string
}

/** What was found, and ways to narrow it: complete HTML that runs no script. */
export function searchPageHtml({ results, shown, sees, behind, placeOf }: SearchFacts, query: SearchQuery, speech: Speech): string {
  const say = (...said: Parameters<Speech['say']>) => escapeHtml(speech.say(...said))
  /** Another choice begins at the first page of what it leaves. */
  const led = (change: Partial<SearchQuery>) => escapeHtml(searchHref({ ...query, page: 1, ...change }))
  const here = (holds: boolean) => (holds ? ' aria-current="true"' : '')

  const sorts = `<nav aria-label="${say('sortBy')}"><ul class="tr-sheets"><li class="tr-said">${say('sortBy')}</li>${SORTS.filter(
    ([sort]) => query.q || sort !== 'fit',
  )
    .map(
      ([sort, word]) =>
        `<li><a class="tr-link" href="${led({ sort })}"${here(query.sort === sort || (!query.q && query.sort === 'fit' && sort === 'title'))}>${say(word)}</a></li>`,
    )
    .join('')}</ul></nav>`
  const leaf = (page: number, rel: 'prev' | 'next') =>
    page >= 1 && page <= results.pages
      ? `<a class="tr-link" rel="${rel}" href="${escapeHtml(searchHref({ ...query, page }))}">${say(rel === 'prev' ? 'pageBefore' : 'pageAfter')}</a>`
      : '<span></span>'
  const leaves =
    results.pages > 1
      ? `<nav class="tr-leafing" aria-label="${say('pagesOfFound')}">${leaf(results.page - 1, 'prev')}<span>${say('pageOf', { number: results.page, count: results.pages })}</span>${leaf(results.page + 1, 'next')}</nav>`
      : ''
  const count = say('fileCount', { count: results.total })
  const told = !results.total
    ? `<p role="status">${say(query.q ? 'nothingFound' : 'nothingThere', { words: query.q })}</p>`
    : `<p role="status">${results.nearly ? `${say('nearly', { words: query.q })} ` : ''}${count}</p>`
  return [
    `<h1>${query.q ? say('foundFor', { words: query.q }) : say('searchFiles')}</h1>`,
    searchFormHtml('tr-q', '', query.q, { ...query, q: '', page: 1 }, speech),
    told,
    results.total || isNarrowed(query) ? narrowingHtml(results, query, speech) : '',
    results.total > 1 ? sorts : '',
    shown.length
      ? `<ol class="tr-hits" start="${(results.page - 1) * RESULTS_PER_PAGE + 1}">\n${shown.map(one => resultHtml(one, placeOf(one.item), { sees: sees(one.item), behind: behind(one.item) }, query, speech)).join('\n')}\n</ol>`
      : '',
    leaves,
  ]
    .filter(Boolean)
    .join('\n')
}
