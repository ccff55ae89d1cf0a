import { KIND_WORDS } from '../language/kindWords'
import type { Speech } from '../language/speech'
import type { WordKey } from '../language/words/words'
import { escapeHtml } from '../page/escape'
import type { Choice, Results } from './results'
import { searchFields, searchHref, type SearchQuery } from './searchQuery'

/** Whether anything narrows what was found. */
export const isNarrowed = ({ folder, kind, tag, from, to }: SearchQuery): boolean => !!(folder || kind || tag || from || to)

/** What else narrows it, each as a link with what it would leave; folded away until it is asked for. */
export function narrowingHtml(results: Results, query: SearchQuery, speech: Speech): string {
  const say = (...said: Parameters<Speech['say']>) => escapeHtml(speech.say(...said))
  /** Another choice begins at the first page of what it leaves. */
  const led = (change: Partial<SearchQuery>) => escapeHtml(searchHref({ ...query, page: 1, ...change }))
  const here = (holds: boolean) => (holds ? ' aria-current="true"' : '')

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
  const narrowed = isNarrowed(query)
  return `<details class="tr-fold tr-narrow"${narrowed ? ' open' : ''}><summary>${say('narrowDown')}</summary>
  <div class="tr-choices">
  ${[
    choicesHtml('folder', 'folder', results.folders, ({ name }) => name, results.path.length ? wayUp : ''),
    choicesHtml('kind', 'kind', results.kinds, ({ value }) => speech.say(KIND_WORDS[value])),
    choicesHtml('tag', 'tag', results.tags, ({ name }) => name),
    days,
  ]
    .filter(Boolean)
    .join('\n')}
  </div>
  ${narrowed ? `<p><a class="tr-link" href="${led({ folder: undefined, kind: undefined, tag: undefined, from: undefined, to: undefined })}">${say('narrowNot')}</a></p>\n` : ''}</details>`
}
