import { entryListHtml } from '../catalogue/listHtml'
import type { Appearance } from '../look/appearance'
import type { Speech } from '../language/speech'
import { ButtonStyles } from '../look/styles'
import { childrenOf, inlinesOf, partsOfShelf, questionOf, type PartName } from './blocks'
import { escapeHtml } from './escape'
import { ghostOf } from './ghosts'
import { fillHref } from './href'
import { buttonInner, buttonParts, spokenFacts, spokenHtml } from './button'
import { cardHtml, cardParts } from './card'
import { destinationOf, effectiveAction, type Destination, type TargetKnowledge } from './destination'
import type { TargetFacts } from './placeholders'
import { markHtml, pictureHtml } from './picture'
import type { Action, Block, ButtonAttrs, CardAttrs, EntryListBlock, Inline, Mark, PictureAttrs, SectionBlock, ShelfAttrs } from './schema'
import type { ShelfSource } from '../shelf/shelfSource'
import { FIRST_VEIL, behindHtml, sectionClass } from './sectionPicture'
import type { Listing } from '../shelf/listing'
import type { DrawnIcon } from '../shelf/icons'
import { renderShelf } from '../shelf/shelf'
import { shownBy } from '../shelf/shelfLook'
import type { OwnShown } from '../shelf/shown'
import { letterboxHtml, type Offered } from '../letterbox/letterboxHtml'
import type { Kept } from '../privacy/kept'
import { privacyHtml } from '../privacy/privacyHtml'
import { searchFormHtml } from '../search/searchForm'
import { tableHtml } from './table'
import { asTarget, placedIn } from './targets'

/** What a page needs to know of library, looks and other pages as they are now. */
export interface PageFacts extends TargetKnowledge {
  /** how the site speaks to its visitors */
  speech: Speech
  /** what a shelf lists, in its order */
  shelf: (source: ShelfSource) => Listing<TargetFacts>
  /** the appearance of a look by its identity; undefined where it is not there */
  look: (id: string) => Appearance | undefined
  /** what a saved way of showing files says; undefined where it is not there */
  shelfLook: (id: string) => OwnShown | undefined
  /** the icon that stands for a file; undefined for the name of its type */
  icon: (file: TargetFacts) => DrawnIcon | undefined
  /** what the site keeps of its visitors */
  kept: Kept
  /** milliseconds since 1970 */
  now: number
}

/** What is known while a page is rendered. */
type Known = PageFacts & {
  styles: ButtonStyles
  /** the level of the heading above, in the outline */
  outline: { last: number }
  /** what its shelves are made of */
  parts: Set<PartName>
  /** files the page gives by themselves, each once: one of them may be what comes back */
  offered: Offered[]
}

/** Files that a page's buttons, cards and words lead to, each once. */
function offeredIn(content: Block[], known: TargetKnowledge): Offered[] {
  const found = new Map<string, Offered>()
  for (const { kind, targets } of placedIn({ type: 'doc', content })) {
    if (kind === 'shelf' || kind === 'picture') continue
    const [target] = targets
    const file = destinationOf(asTarget(target), known)?.file
    if (file) found.set(file.handle, { handle: file.handle, title: file.title })
  }
  return [...found.values()]
}

/** The look of the buttons that belong to a shelf. */
export const SHELF_LOOK = 'rim'

type LinkAttrs = Extract<Mark, { type: 'downloadLink' }>['attrs']

function anchor(attrs: LinkAttrs, action: Action, destination: Destination, attributes: string, inner: string): string {
  const tab = action === 'tab' ? ' target="_blank" rel="noopener"' : ''
  return `<a${attributes} href="${escapeHtml(destination.href(action, attrs.placement))}"${tab}>${inner}</a>`
}

/** A button that leads nowhere would only disappoint: visitors do not see it. */
function buttonAnchor(attrs: ButtonAttrs, known: Known, attributes = ''): string {
  const destination = destinationOf(attrs.target, known)
  if (!destination) return ''
  const parts = buttonParts(attrs, destination, known.speech)
  const { className, appearance } = known.styles.wear(attrs)
  return anchor(attrs, parts.action, destination, ` class="tr-button ${className}"${attributes}`, buttonInner(parts, appearance))
}

function renderButton(attrs: ButtonAttrs, known: Known): string {
  const button = buttonAnchor(attrs, known)
  return button && `<p class="tr-place tr-${attrs.align}">${button}</p>`
}

function renderCard(attrs: CardAttrs, known: Known): string {
  const destination = destinationOf(attrs.target, known)
  if (!destination) return ''
  const parts = cardParts(attrs, destination, known.speech)
  const { className, appearance } = known.styles.wear(attrs)
  const button = anchor(attrs, parts.action, destination, ` class="tr-button ${className}"`, buttonInner(parts, appearance))
  return cardHtml(parts, destination.file, `<p class="tr-place tr-left">${button}</p>`)
}

function renderPicture(attrs: PictureAttrs, known: Known): string {
  const file = attrs.file ? known.file(attrs.file) : undefined
  if (!file?.picture) return ''
  const destination = destinationOf(attrs.target, known)
  const action = effectiveAction(attrs.action, destination)
  // Who does not see the picture hears where it leads.
  const spoken = destination
    ? spokenHtml((attrs.decorative || !attrs.alt ? destination.title : '') + spokenFacts(attrs.alt, action, destination, known.speech))
    : ''
  return pictureHtml(attrs, file, image => (destination ? anchor(attrs, action, destination, ' class="tr-led"', image + spoken) : image))
}

function renderInline(inline: Inline): string {
  if (inline.type === 'hardBreak') return '<br>'
  // Where nothing was filled in there is nothing to say.
  if (inline.type === 'field' || inline.type === 'siteValue') return ''
  let html = escapeHtml(inline.text)
  for (const mark of inline.marks ?? []) {
    if (mark.type === 'bold') html = `<strong>${html}</strong>`
    if (mark.type === 'italic') html = `<em>${html}</em>`
  }
  return html
}

const linkOf = (inline: Inline) => (inline.type === 'text' ? inline.marks?.find(mark => mark.type === 'downloadLink')?.attrs : undefined)

/** Neighbouring pieces of one link, bold and plain say, become one anchor. */
function renderInlines(inlines: Inline[] = [], known: Known): string {
  let html = ''
  for (let index = 0; index < inlines.length;) {
    const link = linkOf(inlines[index]!)
    let next = index + 1
    while (link && next < inlines.length && linkOf(inlines[next]!)?.placement === link.placement) next++
    const run = inlines.slice(index, next)
    const inner = run.map(inline => renderInline(inline)).join('')
    const destination = link && destinationOf(link.target, known)
    if (link && destination) {
      const action = effectiveAction(link.action, destination)
      const words = run.map(inline => (inline.type === 'text' ? inline.text : ' ')).join('')
      html += anchor(
        link,
        action,
        destination,
        ' class="tr-link"',
        inner + spokenHtml(spokenFacts(words, action, destination, known.speech)),
      )
    } else {
      html += inner
    }
    index = next
  }
  return html
}

const blocksHtml = (blocks: Block[], known: Known): string =>
  blocks
    .map(block => renderBlock(block, known))
    .filter(Boolean)
    .join('\n')

function renderBlock(block: Block, known: Known): string {
  switch (block.type) {
    case 'paragraph':
      return ghostOf(block) ? '' : `<p>${renderInlines(block.content, known)}</p>`
    case 'heading': {
      const inner = renderInlines(block.content, known)
      // An empty heading is a place in the outline with nothing to read (WCAG 2.2, 1.3.1).
      return inner && headingHtml(block.attrs.level, inner, known.outline)
    }
    case 'bulletList':
      return listHtml('ul', block.content, known)
    case 'orderedList': {
      const start = block.attrs && block.attrs.start !== 1 ? ` start="${block.attrs.start}"` : ''
      return listHtml(`ol${start}`, block.content, known)
    }
    case 'blockquote': {
      const inner = blocksHtml(block.content, known)
      return inner && `<blockquote>${inner}</blockquote>`
    }
    case 'table':
      return tableHtml(block, inlines => renderInlines(inlines, known))
    case 'horizontalRule':
      return '<hr>'
    case 'space':
      return `<div class="tr-space tr-space-${block.attrs.size}"></div>`
    case 'downloadButton':
      return renderButton(block.attrs, known)
    case 'buttonRow': {
      const inner = blocksHtml(block.content ?? [], known)
      return inner && `<div class="tr-row tr-row-${block.attrs.align}">\n${inner}\n</div>`
    }
    case 'columns': {
      const columns = block.content.map(column => blocksHtml(column.content, known))
      if (!columns.some(Boolean)) return ''
      const share = block.attrs?.share && block.attrs.share !== 'even' ? ` tr-share-${block.attrs.share}` : ''
      return `<div class="tr-columns tr-columns-${columns.length}${share}">\n${columns.map(column => `<div class="tr-column">\n${column}\n</div>`).join('\n')}\n</div>`
    }
    case 'fold': {
      const [question, answer] = [questionOf(block).trim(), blocksHtml(childrenOf(block), known)]
      // Without a question there is nothing to press, without an answer nothing to see.
      return question && answer ? `<details class="tr-fold"><summary>${escapeHtml(question)}</summary>\n${answer}\n</details>` : answer
    }
    case 'section':
      return renderSection(block, known)
    case 'fileCard':
      return renderCard(block.attrs, known)
    case 'picture':
      return renderPicture(block.attrs, known)
    case 'search': {
      const { placement, label, folders } = block.attrs
      return searchFormHtml(`tr-${placement}`, label, '', { at: placement, within: folders }, known.speech)
    }
    case 'privacy':
      return privacyHtml(known.kept, known.speech)
    case 'letterbox':
      return letterboxHtml(block.attrs, known.offered, known.speech)
    case 'shelf':
      return shelfHtml(block.attrs, known)
    case 'entryList':
      return entriesHtml(block, known)
  }
}

/** The outline below a group of entries goes one level further in than its name. */
const GROUP_LEVEL = 2

function entriesHtml({ attrs, shown }: EntryListBlock, known: Known): string {
  if (!shown) return ''
  const before = known.outline.last
  return entryListHtml(attrs, shown, {
    // Each entry begins where the one before it did.
    write(blocks) {
      const outline = known.outline.last
      const html = blocksHtml(blocks, known)
      known.outline.last = outline
      return html
    },
    cellOf: blocks =>
      blocks.map(block => (block.type === 'paragraph' ? renderInlines(inlinesOf(block), known) : renderBlock(block, known))).join(''),
    heading(name) {
      known.outline.last = before
      return headingHtml(GROUP_LEVEL, escapeHtml(name), known.outline)
    },
    speech: known.speech,
  })
}

function shelfHtml(attrs: ShelfAttrs, known: Known): string {
  if (!attrs.source) return ''
  const shown = shownBy(attrs, known.shelfLook)
  for (const part of partsOfShelf(shown)) known.parts.add(part)
  const buttonClass = () => known.styles.wear({ look: SHELF_LOOK }).className
  return renderShelf(known.shelf(attrs.source), { attrs, shown, buttonClass, iconOf: known.icon, now: known.now, speech: known.speech })
}

const pictureBehind = ({ attrs: { picture } }: SectionBlock, known: Known): TargetFacts | undefined => {
  const file = picture ? known.file(picture) : undefined
  return file?.picture ? file : undefined
}

/** The section over a picture that a page begins with, in which its title stands. */
function openingOf([first]: Block[], known: Known): SectionBlock | undefined {
  return first?.type === 'section' && pictureBehind(first, known) ? first : undefined
}

/** @param above stands in it before what is its own */
function renderSection(block: SectionBlock, known: Known, above = ''): string {
  const file = pictureBehind(block, known)
  const inner = [above, blocksHtml(block.content, known)].filter(Boolean).join('\n')
  const behind = file ? `${behindHtml(file, block.attrs.veil ?? FIRST_VEIL)}\n` : ''
  return inner && `<section class="${sectionClass(block.attrs, !!file)}">\n${behind}${inner}\n</section>`
}

/**
 * A heading keeps the size that was chosen for it, and in the outline comes at most one level below the one before it: who jumps from
 * heading to heading misses none (WCAG technique G141; `aria-level` as ARIA in HTML allows it on headings).
 */
function headingHtml(level: number, inner: string, outline: Known['outline']): string {
  const told = Math.min(level, outline.last + 1)
  outline.last = told
  return `<h${level}${told === level ? '' : ` aria-level="${told}"`}>${inner}</h${level}>`
}

/** A list of those items in which there is something. */
function listHtml(tag: string, items: { content: Block[] }[], known: Known): string {
  const written = items.map(({ content }) => renderItem(content, known)).filter(Boolean)
  return written.length ? `<${tag}>${written.map(item => `<li>${item}</li>`).join('')}</${tag.slice(0, 2)}>` : ''
}

/** An item of one paragraph needs no `p` of its own. */
function renderItem(blocks: Block[], known: Known): string {
  return blocks
    .map((block, index) => (index === 0 && block.type === 'paragraph' ? renderInlines(block.content, known) : renderBlock(block, known)))
    .join('')
}

/** Renders the documents that make up one page: semantic HTML without script, the same for preview, live and export. */
export function pageRenderer(facts: PageFacts) {
  const known: Known = {
    ...facts,
    styles: new ButtonStyles(facts.look, id => fillHref(facts.file(id))),
    outline: { last: 1 },
    parts: new Set(),
    offered: [],
  }
  return {
    /** Blocks that begin below the title of the page. */
    blocks(blocks: Block[]): string {
      known.outline.last = 1
      return blocksHtml(blocks, known)
    },

    /** A page below its head: its title, in its first section where that stands over a picture, and its blocks. */
    main(title: string, content: Block[]): string {
      const heading = `<h1>${escapeHtml(title)}</h1>`
      const [, ...rest] = content
      known.outline.last = 1
      known.offered = offeredIn(content, known)
      const first = openingOf(content, known)
      if (!first) return `${heading}\n${blocksHtml(content, known)}`
      return [renderSection(first, known, heading), blocksHtml(rest, known)].filter(Boolean).join('\n')
    },

    /** What a page begins over, where that is a picture. */
    opening: (content: Block[]): SectionBlock | undefined => openingOf(content, known),

    /** The picture that stands for the site; it leads home where it was not led elsewhere. Empty where it is not there. */
    mark(attrs: PictureAttrs, siteName: string): string {
      const file = attrs.file ? facts.file(attrs.file) : undefined
      if (!file?.picture) return ''
      const destination = destinationOf(attrs.target, known)
      const image = markHtml(file, (!attrs.decorative && attrs.alt) || siteName)
      if (!destination) return `<a class="tr-site" href="/">${image}</a>`
      return anchor(attrs, effectiveAction(attrs.action, destination), destination, ' class="tr-site"', image)
    },

    /** A button as an item of a menu, marked where it leads to the page it stands on; empty where it leads nowhere. */
    menuItem(attrs: ButtonAttrs, currentSlug: string | undefined): string {
      const led = attrs.target?.kind === 'page' ? facts.page(attrs.target.id) : undefined
      return buttonAnchor(attrs, known, led && led.slug === currentSlug ? ' aria-current="page"' : '')
    },

    /** what the shelves rendered so far are made of */
    get parts(): ReadonlySet<PartName> {
      return known.parts
    },

    /** the rules of all buttons rendered so far */
    get css(): string {
      return known.styles.css
    },
  }
}
export type PageRenderer = ReturnType<typeof pageRenderer>
