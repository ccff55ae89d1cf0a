import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'
import type { Block } from '../page/schema'
import { fieldKey } from './field'
import { askedFields, isRanged, sortable } from './list'
import { isWideList, type ListAttrs } from './listAttrs'
import type { Shown, ShownEntry } from './shown'

/** Writes what an entry has been filled into. */
type Write = (blocks: Block[]) => string

const hidden = (fields: [name: string, value: string][]) =>
  fields.map(([name, value]) => `<input type="hidden" name="${escapeHtml(name)}" value="${escapeHtml(value)}">`).join('')

/** A form that asks the list for less, or in another order: it works without script, and all of it stands in the address. */
function formHtml(attrs: ListAttrs, { question, narrowing, fields, path }: Shown<Block>, speech: Speech): string {
  if (!attrs.search && !narrowing.length) return ''
  const say = (...said: Parameters<Speech['say']>) => escapeHtml(speech.say(...said))
  const id = (part: string) => `tr-${attrs.placement}-${part}`
  const labelled = (part: string, label: string, control: string) =>
    `<span class="tr-asked"><label for="${id(part)}">${label}</label>${control}</span>`
  const words = attrs.search
    ? labelled(
        'q',
        say('searchList'),
        `<input class="tr-field" type="search" id="${id('q')}" name="q" maxlength="200" value="${escapeHtml(question.q)}">`,
      )
    : ''
  const narrowed = narrowing.map(({ field, choices }) => {
    const key = fieldKey(field, fields)
    const name = escapeHtml(field.name)
    if (isRanged(field)) {
      const { from, to } = question.between.get(field.id) ?? { from: '', to: '' }
      const type = field.kind === 'date' ? 'type="date"' : 'type="text" inputmode="decimal" size="6"'
      const end = (part: 'from' | 'to', label: string, value: string) =>
        `<label for="${id(`${field.id}-${part}`)}">${label}</label><input class="tr-field" ${type} id="${id(`${field.id}-${part}`)}" name="${key}-${part}" value="${escapeHtml(value)}">`
      return `<fieldset class="tr-asked"><legend>${name}</legend><span class="tr-ends">${end('from', say('fromDay'), from)}${end('to', say('toDay'), to)}</span></fieldset>`
    }
    const options = choices.map(
      choice =>
        `<option value="${escapeHtml(choice.key)}"${choice.taken ? ' selected' : ''}>${escapeHtml(choice.name)} (${escapeHtml(speech.number(choice.count))})</option>`,
    )
    return labelled(
      field.id,
      name,
      `<select class="tr-field" id="${id(field.id)}" name="${key}"><option value="">${say('allOfThem')}</option>${options.join('')}</select>`,
    )
  })
  const sorts = sortable(attrs, fields)
  const order =
    sorts.length > 1
      ? labelled(
          'sort',
          say('sortBy'),
          `<select class="tr-field" id="${id('sort')}" name="sort"><option value="">${say('asListed')}</option>${sorts
            .map(
              field =>
                `<option value="${fieldKey(field, fields)}"${question.sort === field.id ? ' selected' : ''}>${escapeHtml(field.name)}</option>`,
            )
            .join('')}</select>`,
        )
      : ''
  const asked = question.q || question.chosen.size || question.between.size || question.sort
  const back = asked ? `<a class="tr-link" href="${escapeHtml(path)}#tr-${attrs.placement}">${say('narrowNot')}</a>` : ''
  return `<form class="tr-ask" action="${escapeHtml(path)}#tr-${attrs.placement}" method="get">${hidden([['list', attrs.placement]])}${words}${narrowed.join('')}${order}<span class="tr-asked tr-go"><button type="submit" class="tr-key-button">${say(narrowing.length ? 'narrow' : 'find')}</button>${back}</span></form>`
}

/** The ways to the pages before and after. */
function leavesHtml(attrs: ListAttrs, { page, pages, question, fields, path }: Shown<Block>, speech: Speech): string {
  if (pages < 2) return ''
  const say = (...said: Parameters<Speech['say']>) => escapeHtml(speech.say(...said))
  const leaf = (to: number, rel: 'prev' | 'next') => {
    if (to < 1 || to > pages) return '<span></span>'
    const asked = new URLSearchParams([...askedFields(question, attrs, fields), ...(to > 1 ? [['page', String(to)]] : [])])
    return `<a class="tr-link" rel="${rel}" href="${escapeHtml(`${path}?${asked}#tr-${attrs.placement}`)}">${say(rel === 'prev' ? 'pageBefore' : 'pageAfter')}</a>`
  }
  return `<nav class="tr-leafing" aria-label="${say('pagesOfList')}">${leaf(page - 1, 'prev')}<span>${say('pageOf', { number: page, count: pages })}</span>${leaf(page + 1, 'next')}</nav>`
}

const CLASSES = { cards: 'tr-entry-cards', tiles: 'tr-entry-tiles', lines: 'tr-entry-lines' } as const

function groupHtml(attrs: ListAttrs, { columns }: Shown<Block>, entries: ShownEntry<Block>[], write: Write, cellOf: Write): string {
  if (attrs.way === 'table') {
    const head = columns.map(({ name }) => `<th scope="col">${escapeHtml(name)}</th>`).join('')
    const rows = entries.map(
      ({ cells }) =>
        `<tr>${cells.map((cell, at) => (at ? `<td>${cellOf(cell)}</td>` : `<th scope="row">${cellOf(cell)}</th>`)).join('')}</tr>`,
    )
    const named = escapeHtml(columns.map(({ name }) => name).join(', '))
    return `<section class="tr-table" tabindex="0" aria-label="${named}"><table>\n<thead><tr>${head}</tr></thead>\n<tbody>${rows.join('\n')}</tbody>\n</table></section>`
  }
  const across = attrs.way === 'lines' ? '' : ` tr-across-${attrs.across}`
  return `<ul class="tr-entry-list ${CLASSES[attrs.way]}${across}">\n${entries.map(({ blocks }) => `<li>\n${write(blocks)}\n</li>`).join('\n')}\n</ul>`
}

/**
 * A list of entries with its form and its pages: complete HTML that runs no script.
 *
 * @param heading writes the name of a group, so that it stands in the outline of the page
 * @param cellOf writes what stands in a cell of a table
 */
export function entryListHtml(
  attrs: ListAttrs,
  shown: Shown<Block>,
  { write, cellOf, heading, speech }: { write: Write; cellOf: Write; heading: (name: string) => string; speech: Speech },
): string {
  const form = formHtml(attrs, shown, speech)
  const asks = shown.question.q || shown.question.chosen.size || shown.question.between.size
  // A list with nothing in it, and nothing asked of it, says nothing.
  if (!shown.total && !asks) return ''
  const groups = shown.groups.map(
    ({ name, entries }) => `${name ? `${heading(name)}\n` : ''}${groupHtml(attrs, shown, entries, write, cellOf)}`,
  )
  const none = shown.total ? '' : `<p role="status">${escapeHtml(speech.say('nothingLike'))}</p>`
  const wide = isWideList(attrs) ? ' tr-wide' : ''
  return [
    `<div class="tr-entries${wide}" id="tr-${attrs.placement}">`,
    form,
    ...(none ? [none] : groups),
    leavesHtml(attrs, shown, speech),
    '</div>',
  ]
    .filter(Boolean)
    .join('\n')
}

/** What lists of entries have, however they stand. */
export const ENTRIES_CSS = `
.tr-entries{margin-block:1.4em}
.tr-page>.tr-wide,.tr-section>.tr-wide{max-width:64rem}
.tr-ask{display:flex;flex-wrap:wrap;align-items:flex-end;gap:.7em 1.1em;margin-block:0 1.5em;padding-bottom:1.1em;border-bottom:1px solid var(--rule)}
.tr-asked{display:grid;gap:.15em;min-width:0;max-width:100%;margin:0;padding:0;border:0;flex:0 1 auto}
.tr-asked>:is(label,legend){padding:0;color:var(--soft);font-size:.9em}
.tr-asked .tr-field{flex:none;width:100%}
.tr-asked .tr-field{height:2.8em}
.tr-ends{display:flex;flex-wrap:wrap;align-items:center;gap:.5em}
.tr-ends .tr-field{width:auto}
.tr-go{display:flex;align-items:center;gap:1em}
.tr-page .tr-entry-list{list-style:none;padding:0}
.tr-entry-list>li{min-width:0}
.tr-page .tr-entry-list>li{margin:0}
.tr-page .tr-entry-list>li>:first-child{margin-top:0}
.tr-page .tr-entry-list>li>:last-child{margin-bottom:0}
.tr-page .tr-entry-list p{margin-block:0 .5em}
.tr-page .tr-entry-list .tr-picture{margin:0 0 .8em}
.tr-page .tr-entry-list .tr-image{width:100%;aspect-ratio:4/3;object-fit:cover}
.tr-page .tr-entry-list :is(h2,h3,h4){margin-bottom:.35em}
.tr-page .tr-entry-list h2{font-size:var(--h3)}
.tr-page .tr-entry-list .tr-picture+:is(h2,h3,h4){margin-top:0}
:is(.tr-entry-cards,.tr-entry-tiles){display:grid;grid-template-columns:minmax(0,1fr);gap:1.4rem 1.3rem}
.tr-entry-cards>li{display:flex;flex-direction:column;padding:1.15rem;background:color-mix(in srgb,var(--rule) 22%,var(--paper));border-top:3px solid var(--accent)}
.tr-entry-cards>li>.tr-picture:first-child{margin:-1.15rem -1.15rem 1rem}
.tr-entry-cards>li>.tr-picture:first-child .tr-image{border-radius:0}
.tr-entry-cards>li>.tr-place:last-of-type{margin-top:auto}
.tr-page .tr-entry-lines>li{padding-block:.8em;border-top:1px solid var(--rule)}
.tr-page .tr-entry-lines :is(h2,h3,h4){font-size:1.1em}
.tr-entry-lines p{color:var(--soft)}
@container (min-width:25rem){:is(.tr-across-2,.tr-across-3,.tr-across-4){grid-template-columns:repeat(2,minmax(0,1fr))}}
@container (min-width:42rem){.tr-across-3{grid-template-columns:repeat(3,minmax(0,1fr))}.tr-across-4{grid-template-columns:repeat(4,minmax(0,1fr))}}
@media print{.tr-ask,.tr-entries .tr-leafing{display:none}}`
