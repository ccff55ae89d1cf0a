import { typeTag } from '../files/mediaType'
import { LOCK, asksWords } from '../gate/asks'
import type { Speech } from '../language/speech'
import { effectiveAction, fileDestination } from '../page/destination'
import { escapeHtml } from '../page/escape'
import { PICTURE_WIDTHS, pictureHref } from '../page/href'
import { imageHtml } from '../page/picture'
import { mayBeSaid, type TargetFacts } from '../page/placeholders'
import type { Action, ShelfAttrs } from '../page/schema'
import type { DrawnIcon } from './icons'
import type { ShelfFact, ShelfPart, Shown } from './shown'

/** What the items of a shelf are written with. */
export interface Writing {
  attrs: ShelfAttrs
  shown: Shown
  /** each can be ticked */
  pick: boolean
  iconOf: (file: TargetFacts) => DrawnIcon | undefined
  /** what its buttons wear */
  buttonClass: () => string
  /** milliseconds since 1970 */
  now: number
  speech: Speech
}

/** The part of an address that names a ticked file. */
export const PICK = 'pick'
const DAY = 86_400_000

export const tickHtml = (file: TargetFacts, speech: Speech) =>
  `<label class="tr-tick"><input type="checkbox" name="${PICK}" value="${escapeHtml(file.id)}"><span class="tr-spoken">${escapeHtml(speech.say('choose', { title: file.title }))}</span></label>`

/** Every fact as it is said in a line; empty where the file has none. */
const FACTS: Record<ShelfFact, (file: TargetFacts, speech: Speech) => string> = {
  type: file => typeTag(file.mediaType),
  size: (file, speech) => speech.size(file.size),
  date: (file, speech) => speech.day(file.changed),
  edition: (file, speech) => speech.say('edition', { number: file.edition }),
  pages: ({ pages }, speech) => (pages === undefined ? '' : speech.say('pageCount', { count: pages })),
  downloads: (file, speech) => speech.downloads(file.downloads),
  tags: file => file.tags.join(', '),
}
/** Facts in cells of a table, where the heading says what the number is. */
const CELLS: Partial<typeof FACTS> = {
  edition: (file, speech) => speech.number(file.edition),
  pages: ({ pages }, speech) => (pages === undefined ? '' : speech.number(pages)),
  downloads: (file, speech) => speech.number(file.downloads),
}
export const cellOf = (fact: ShelfFact, file: TargetFacts, speech: Speech): string =>
  mayBeSaid(fact, file) ? (CELLS[fact] ?? FACTS[fact])(file, speech) : ''

const factsOf = (file: TargetFacts, facts: readonly ShelfFact[], speech: Speech): string =>
  [...facts.map(fact => (mayBeSaid(fact, file) ? FACTS[fact](file, speech) : '')), file.asks ? asksWords(file.asks, speech) : '']
    .filter(Boolean)
    .join(', ')

const factsHtml = (file: TargetFacts, { shown, speech }: Writing) => {
  const facts = factsOf(file, shown.facts, speech)
  return facts && `<span class="tr-note">${escapeHtml(facts)}</span>`
}

const isNew = (file: TargetFacts, { shown, now }: Writing) => now - Date.parse(file.changed) < shown.newDays * DAY

const newHtml = (file: TargetFacts, writing: Writing) =>
  isNew(file, writing) ? `<span class="tr-new">${escapeHtml(writing.speech.say('newMark'))}</span>` : ''

const aimOf = (file: TargetFacts, wanted: Action, { attrs, speech }: Writing) => {
  const destination = fileDestination(file)
  const action = effectiveAction(wanted, destination)
  return {
    href: escapeHtml(destination.href(action, attrs.placement)),
    tab: action === 'tab' ? ' target="_blank" rel="noopener"' : '',
    told: action === 'tab' ? [speech.say('newTab')] : action === 'see' ? [speech.say('lookFirst')] : [],
  }
}
const spokenIn = (told: string[]) => (told.length ? `<span class="tr-spoken"> (${escapeHtml(told.join(', '))})</span>` : '')

/** The link to a file of a shelf, with what a click does. @param inside said in it behind the title */
export function linkHtml(file: TargetFacts, writing: Writing, inside: string): string {
  const { href, tab, told } = aimOf(file, writing.attrs.action, writing)
  // What is said elsewhere in the item is not part of the link: who goes from link to link hears it all the same (WCAG 2.2, 2.4.4).
  const unsaid = inside.includes('tr-note') ? [] : [factsOf(file, ['type', 'size'], writing.speech)]
  return `<a class="tr-item" href="${href}"${tab}><span class="tr-label">${escapeHtml(file.title)}${file.asks && unsaid.length ? LOCK : ''}</span>${inside && ` ${inside}`}${spokenIn([...unsaid, ...told])}</a>`
}

/** A file's picture at the side of what is said of it. */
const THUMB_SIZES = '6rem'

const typeHtml = (file: TargetFacts, className: string) =>
  `<span class="${className}" aria-hidden="true">${escapeHtml(typeTag(file.mediaType))}</span>`

function iconHtml(file: TargetFacts, { iconOf }: Writing): string {
  const icon = iconOf(file)
  if (!icon) return typeHtml(file, 'tr-sign tr-sign-type')
  if (icon.kind === 'picture')
    return `<img class="tr-sign" src="${escapeHtml(pictureHref(icon.picture, PICTURE_WIDTHS[0]))}" alt="" loading="lazy" decoding="async">`
  return `<svg class="tr-sign" viewBox="0 0 24 24" aria-hidden="true"><path d="${escapeHtml(icon.path)}"/></svg>`
}

/** @param sizes how wide it is shown (HTML, "sizes" of img) */
const itemPicture = (file: TargetFacts, sizes: string) =>
  file.picture ? imageHtml(file, { alt: '', sizes, className: 'tr-view' }) : typeHtml(file, 'tr-view tr-view-type')

function lookHtml(file: TargetFacts, writing: Writing): string {
  if (!file.see) return ''
  const { href } = aimOf(file, 'see', writing)
  return `<a class="tr-link" href="${href}">${escapeHtml(writing.speech.say('lookInside'))}<span class="tr-spoken">: ${escapeHtml(file.title)}</span></a>`
}

function buttonHtml(file: TargetFacts, writing: Writing): string {
  const { href } = aimOf(file, 'save', writing)
  const facts = factsOf(file, ['type', 'size'], writing.speech)
  return `<a class="tr-button ${writing.buttonClass()}" href="${href}"><span class="tr-label">${escapeHtml(writing.speech.say('download'))}</span><span class="tr-spoken">: ${escapeHtml(file.title)} (${escapeHtml(facts)})</span></a>`
}

/** One part of an item that stands by itself; empty where the file has nothing of it. */
export function partHtml(part: Exclude<ShelfPart, 'title'>, file: TargetFacts, writing: Writing, sizes = THUMB_SIZES): string {
  switch (part) {
    case 'picture':
      return itemPicture(file, sizes)
    case 'icon':
      return iconHtml(file, writing)
    case 'new':
      return newHtml(file, writing)
    case 'facts':
      return factsHtml(file, writing)
    case 'description':
      return file.description && `<p class="tr-more">${escapeHtml(file.description)}</p>`
    case 'look':
      return lookHtml(file, writing)
    case 'button':
      return buttonHtml(file, writing)
  }
}
