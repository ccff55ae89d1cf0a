import type { TargetFacts } from '../page/placeholders'
import { linkHtml, partHtml, tickHtml, type Writing } from './item'
import type { Layout, ShelfPart, Shown } from './shown'

const FIGURES: readonly ShelfPart[] = ['picture', 'icon']
const ACTS: readonly ShelfPart[] = ['look', 'button']
/** What may be said within the link, right behind the title. */
const WITHIN: readonly ShelfPart[] = ['new', 'facts']

/** How wide the picture of an item is shown, where items stand side by side. */
const sizesOf = ({ layout, columns }: Shown): string | undefined =>
  layout === 'tiles' || layout === 'cards'
    ? `(max-width:34rem) ${Math.round(92 / columns.narrow)}vw, ${Math.round(64 / columns.wide)}rem`
    : undefined

/** Parts that are always written, whatever was chosen: without its title nobody knows what it is. */
const withTitle = (parts: readonly ShelfPart[]): ShelfPart[] => (parts.includes('title') ? [...parts] : ['title', ...parts])

/** What is said of a file: its link, with what follows it at once inside, and the rest in its order. */
function saidHtml(file: TargetFacts, parts: ShelfPart[], writing: Writing): string {
  const at = parts.indexOf('title')
  const behind = parts.slice(at + 1)
  const stop = behind.findIndex(part => !WITHIN.includes(part))
  const inside = stop < 0 ? behind : behind.slice(0, stop)
  const write = (some: ShelfPart[]) => some.map(part => partHtml(part as Exclude<ShelfPart, 'title'>, file, writing)).filter(Boolean)
  const link = linkHtml(file, writing, write(inside).join(' '))
  const said = [...write(parts.slice(0, at)), link, ...write(behind.slice(inside.length))]
  return said.length === 1 ? link : `<div class="tr-body">${said.join('\n')}</div>`
}

function itemHtml(file: TargetFacts, writing: Writing): string {
  const parts = withTitle(writing.shown.parts)
  const title = parts.indexOf('title')
  const figures = (some: ShelfPart[]) =>
    some
      .filter(part => FIGURES.includes(part))
      .map(part => partHtml(part as 'picture' | 'icon', file, writing, sizesOf(writing.shown)))
      .join('')
  const acts = parts
    .filter(part => ACTS.includes(part))
    .map(part => partHtml(part as 'look' | 'button', file, writing))
    .filter(Boolean)
    .join(' ')
  const said = saidHtml(
    file,
    parts.filter(part => !FIGURES.includes(part) && !ACTS.includes(part)),
    writing,
  )
  const tick = writing.pick ? tickHtml(file, writing.speech) : ''
  return `<li>${tick}${figures(parts.slice(0, title))}${said}${figures(parts.slice(title))}${acts && `<span class="tr-acts">${acts}</span>`}</li>`
}

/** The classes that say how the list of an item stands; none for lines that are as usual. */
const CLASS: Partial<Record<Layout, string>> = { tiles: 'tr-tiles', cards: 'tr-cards', compact: 'tr-compact' }

/** Files one below the other or side by side, each with the parts that were chosen, in their order. */
export function itemsHtml(files: TargetFacts[], writing: Writing): string {
  const name = CLASS[writing.shown.layout]
  return `<ul${name ? ` class="${name}"` : ''}>\n${files.map(file => itemHtml(file, writing)).join('\n')}\n</ul>`
}
