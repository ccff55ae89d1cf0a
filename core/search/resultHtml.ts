import { cut } from '../cut'
import type { Behind } from '../gate/asks'
import type { Speech } from '../language/speech'
import { effectiveAction, fileDestination } from '../page/destination'
import { escapeHtml } from '../page/escape'
import { filePath } from '../page/href'
import { targetFacts } from '../page/placeholders'
import { passageHtml } from '../see/passageHtml'
import { factsLine } from '../see/seePage'
import { seeHref } from '../see/seeAddress'
import type { ShownResult } from './results'
import type { SearchQuery } from './searchQuery'

/** Letters shown of a description. */
const LONGEST = 180

const shortened = (text: string) => (text.length > LONGEST ? `${cut(text, LONGEST).replace(/\s+\S*$/, '')}…` : text)

/**
 * One file that was found: what it is, the passage the words stand in, and ways to it.
 *
 * @param place the way to the folder it lies in, in words
 * @param seen whether visitors may look at it before they take it, and what they are asked first
 */
export function resultHtml(
  { item, match }: ShownResult,
  place: string,
  { sees, behind }: { sees: boolean; behind?: Behind },
  query: SearchQuery,
  speech: Speech,
): string {
  const say = (...said: Parameters<Speech['say']>) => escapeHtml(speech.say(...said))
  const file = targetFacts(item, false, behind)
  const destination = fileDestination(file)
  const action = effectiveAction('tab', destination)
  const [tab, spoken] =
    action === 'tab' ? [' target="_blank" rel="noopener"', `<span class="tr-spoken"> (${say('newTab')})</span>`] : ['', '']
  const page = match?.by === 'inside' ? /^Page (\d+)$/.exec(match.part)?.[1] : undefined
  const ways = [
    ...(page && file.mediaType === 'application/pdf'
      ? [
          `<a class="tr-link" href="${escapeHtml(filePath(file.handle))}?open${query.at ? `&amp;at=${query.at}` : ''}#page=${page}" target="_blank" rel="noopener">${say('openAtPage', { number: Number(page) })}<span class="tr-spoken">: ${escapeHtml(file.title)} (${say('newTab')})</span></a>`,
        ]
      : []),
    ...(sees && !behind
      ? [
          `<a class="tr-link" href="${escapeHtml(seeHref(file.handle, { page: Number(page ?? 0), find: match?.by === 'inside' ? query.q : '', at: query.at }))}">${say('lookInside')}<span class="tr-spoken">: ${escapeHtml(file.title)}</span></a>`,
        ]
      : []),
  ]
  return [
    `<li class="tr-hit"><h2><a class="tr-link" href="${escapeHtml(destination.href(action, query.at ?? ''))}"${tab}>${escapeHtml(file.title)}${spoken}</a></h2>`,
    `<p class="tr-facts">${escapeHtml([factsLine(file, speech), place].filter(Boolean).join(' · '))}</p>`,
    file.description && `<p>${escapeHtml(shortened(file.description))}</p>`,
    match?.by === 'inside' && `<p class="tr-passage">${passageHtml(match.passage)}</p>`,
    ways.length && `<p class="tr-ways">${ways.join(' ')}</p>`,
  ]
    .filter(Boolean)
    .join('\n')
    .concat('</li>')
}
