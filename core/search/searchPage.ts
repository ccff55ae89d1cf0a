import type { Family } from '../files/mediaType'
import type { Speech } from '../language/speech'
import type { WordKey } from '../language/words/words'
import { effectiveAction, fileDestination } from '../page/destination'
import { escapeHtml } from '../page/escape'
import { filePath } from '../page/href'
import { targetFacts } from '../page/placeholders'
import { passageHtml } from '../see/passageHtml'
import { factsLine } from '../see/seePage'
import { seeHref } from '../see/seeAddress'
import { searchFormHtml } from './searchForm'
import { RESULTS_PER_PAGE, type Choice, type Results, type ShownResult } from './results'
import { searchFields, searchHref, type SearchQuery, type SearchSort } from './searchQuery'

const KINDS: Record<Family, WordKey> = {
  document: 'kindDocument',
  sheet: 'kindSheet',
  slides: 'kindSlides',
  picture: 'kindPicture',
  sound: 'kindSound',
  film: 'kindFilm',
  archive: 'kindArchive',
  other: 'kindOther',
}
const SORTS: [SearchSort, WordKey][] = [
  ['fit', 'sortFit'],
  ['title', 'sortName'],
  ['-changed', 'sortNewest'],
  ['-size', 'sortSize'],
  ['-downloads', 'sortTaken'],
]
/** Letters shown of a description. */
const LONGEST = 180

export interface SearchFacts {
  results: Results
  shown: ShownResult[]
  /** whether visitors may look at a file before they take it */
  sees: (file: ShownResult['item']) => boolean
  /** the way to the folder a file lies in, in words */
  placeOf: (file: ShownResult['item']) => string
}

const shortened = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST).replace(/\s+\S*$/, '')}…` : text)

/** What was found, and ways to narrow it: complete HTML that runs no script. */
export function searchPageHtml({ results, shown, sees, placeOf }: SearchFacts, query: SearchQuery, speech: Speech): string {
  const say = (...said: Parameters<Speech['say']>) => escapeHtml(speech.say(...said))
  /** Another choice begins at the first page of what it leaves. */
  const led = (change: Partial<SearchQuery>) => escapeHtml(searchHref({ ...query, page: 1, ...change }))
  const here = (holds: boolean) => (holds ? ' aria-current="true"' : '')

  const resultHtml = ({ item, match }: ShownResult) => {
    const file = targetFacts(item)
    const destination = fileDestination(file)
    const action = effectiveAction('tab', destination)
    const [tab, spoken] =
      action === 'tab' ? [' target="_blank" rel="noopener"', `<span class="tr-spoken"> (${say('newTab')})</span>`] : ['', '']
    const page = match?.by === 'inside' ? /^Page (\d+)$/.exec(match.part)?.[1] : undefined
    const ways = [
      ...(page
        ? [
            `<a class="tr-link" href="${escapeHtml(filePath(file.handle))}?open${query.at ? `&amp;at=${query.at}` : ''}#page=${page}" target="_blank" rel="noopener">${say('openAtPage', { number: Number(page) })}<span class="tr-spoken">: ${escapeHtml(file.title)} (${say('newTab')})</span></a>`,
          ]
        : []),
      ...(sees(item)
        ? [
            `<a class="tr-link" href="${escapeHtml(seeHref(file.handle, { page: Number(page ?? 0), find: match?.by === 'inside' ? query.q : '', at: query.at }))}">${say('lookInside')}<span class="tr-spoken">: ${escapeHtml(file.title)}</span></a>`,
          ]
        : []),
    ]
    return [
      `<li class="tr-hit"><h2><a class="tr-link" href="${escapeHtml(destination.href(action, query.at ?? ''))}"${tab}>${escapeHtml(file.title)}${spoken}</a></h2>`,
      `<p class="tr-facts">${escapeHtml([factsLine(file, speech), placeOf(item)].filter(Boolean).join(' · '))}</p>`,
      file.description && `<p>${escapeHtml(shortened(file.description))}</p>`,
      match?.by === 'inside' && `<p class="tr-passage">${passageHtml(match.passage)}</p>`,
      ways.length && `<p class="tr-ways">${ways.join(' ')}</p>`,
    ]
      .filter(Boolean)
      .join('\n')
      .concat('</li>')
  }

  /** One kind of choice; a choice that holds is taken back by pressing it again. */
  const choicesHtml = <Key extends 'folder' | 'kind' | 'tag'>(
    name: WordKey,
    key: Key,
    choices: Choice<NonNullable<SearchQuery[Key]>>[],
    words: (choice: Choice<NonNullable<SearchQuery[Key]>>) => string,
    above = '',
  ) => {
    if (!choices.length && !above) return ''
    const lines = choices.map(choice => {
      const holds = query[key] === choice.value
      return `<li><a class="tr-link" href="${led({ [key]: holds ? undefined : choice.value })}"${here(holds)}>${escapeHtml(words(choice))}</a> <span class="tr-said">${escapeHtml(speech.number(choice.count))}</span></li>`
    })
    return `<section>\n<h2>${say(name)}</h2>\n<ul>${above}${lines.join('')}</ul>\n</section>`
  }
  const wayUp = [{ id: undefined, name: speech.say('allFolders') }, ...results.path]
    .map(({ id, name }) => `<li><a class="tr-link" href="${led({ folder: id })}"${here(query.folder === id)}>${escapeHtml(name)}</a></li>`)
    .join('')
  const days = `<form class="tr-seek" action="${escapeHtml(searchHref({}))}" method="get"><h2>${say('changedWhen')}</h2>
<label for="tr-from">${say('fromDay')}</label> <input class="tr-field" id="tr-from" type="date" name="from" value="${query.from ?? ''}">
<label for="tr-to">${say('toDay')}</label> <input class="tr-field" id="tr-to" type="date" name="to" value="${query.to ?? ''}">
<button class="tr-key-button" type="submit">${say('narrow')}</button>${searchFields({ ...query, from: undefined, to: undefined, page: 1 })
    .map(([field, value]) => `<input type="hidden" name="${field}" value="${escapeHtml(value)}">`)
    .join('')}</form>`
  const narrowed = query.folder || query.kind || query.tag || query.from || query.to
  const narrowing = `<details class="tr-fold tr-narrow"${narrowed ? ' open' : ''}><summary>${say('narrowDown')}</summary>
<div class="tr-choices">
${[
  choicesHtml('folder', 'folder', results.folders, ({ name }) => name, results.path.length ? wayUp : ''),
  choicesHtml('kind', 'kind', results.kinds, ({ value }) => speech.say(KINDS[value])),
  choicesHtml('tag', 'tag', results.tags, ({ name }) => name),
  days,
]
  .filter(Boolean)
  .join('\n')}
</div>
${narrowed ? `<p><a class="tr-link" href="${led({ folder: undefined, kind: undefined, tag: undefined, from: undefined, to: undefined })}">${say('narrowNot')}</a></p>\n` : ''}</details>`
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
    results.total || narrowed ? narrowing : '',
    results.total > 1 ? sorts : '',
    shown.length
      ? `<ol class="tr-hits" start="${(results.page - 1) * RESULTS_PER_PAGE + 1}">\n${shown.map(resultHtml).join('\n')}\n</ol>`
      : '',
    leaves,
  ]
    .filter(Boolean)
    .join('\n')
}
