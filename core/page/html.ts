import { formatSize } from '../files/size'
import { typeTag } from '../files/mediaType'
import { escapeHtml } from './escape'
import { placementHref } from './href'
import { effectiveAction, fillPlaceholders, type TargetFacts } from './placeholders'
import type { Action, Block, ButtonAttrs, Inline, Mark, PageDocument, ShelfSource, Target } from './schema'
import { renderShelf } from './shelf'

/** What a page needs to know of the library as it is now. */
export interface PageFacts {
  /** what a target is; undefined where there is none to give, such as a file in the bin */
  target: (target: Target) => TargetFacts | undefined
  /** the files a shelf lists, in its order */
  shelf: (source: ShelfSource) => TargetFacts[]
}

type LinkAttrs = Extract<Mark, { type: 'downloadLink' }>['attrs']

/** The pieces of a button, for the renderer and for the editor, which draws it the same way. */
export function buttonParts(attrs: ButtonAttrs, facts: TargetFacts | undefined) {
  const action = effectiveAction(attrs.action, facts)
  const label = fillPlaceholders(attrs.label, facts).trim() || facts?.title || 'Download'
  const note = fillPlaceholders(attrs.note, facts).trim()
  return { action, label, note, spoken: spokenFacts(`${label} ${note}`, action, facts) }
}

/**
 * What the visible words leave out of the accessible name: type, size, and that a tab opens
 * (WCAG 2.2, success criteria 2.4.4 and 3.2.5).
 */
function spokenFacts(visible: string, action: Action, facts: TargetFacts | undefined): string {
  if (!facts) return ''
  const missing = [typeTag(facts.mediaType), formatSize(facts.size)].filter(fact => !visible.includes(fact))
  if (action === 'tab') missing.push('opens in a new tab')
  return missing.length ? ` (${missing.join(', ')})` : ''
}

function anchor(attrs: LinkAttrs, action: Action, facts: TargetFacts, className: string, inner: string): string {
  const tab = action === 'tab' ? ' target="_blank" rel="noopener"' : ''
  return `<a${className} href="${escapeHtml(placementHref(facts, action, attrs.placement))}"${tab}>${inner}</a>`
}

const spokenHtml = (spoken: string) => spoken && `<span class="tr-spoken">${escapeHtml(spoken)}</span>`

/** The inside of a button: label, note, and what only screen readers need. */
export function buttonInner({ label, note, spoken }: { label: string, note: string, spoken: string }): string {
  return `<span class="tr-label">${escapeHtml(label)}</span>`
    + (note && ` <span class="tr-note">${escapeHtml(note)}</span>`) + spokenHtml(spoken)
}

function renderButton(attrs: ButtonAttrs, known: PageFacts): string {
  const facts = attrs.target ? known.target(attrs.target) : undefined
  // A button that leads nowhere would only disappoint: visitors do not see it.
  if (!facts) return ''
  const parts = buttonParts(attrs, facts)
  const className = ` class="tr-button tr-look-${attrs.look}"`
  return `<p class="tr-place tr-${attrs.align}">${anchor(attrs, parts.action, facts, className, buttonInner(parts))}</p>`
}

function renderInline(inline: Inline): string {
  if (inline.type === 'hardBreak') return '<br>'
  let html = escapeHtml(inline.text)
  for (const mark of inline.marks ?? []) {
    if (mark.type === 'bold') html = `<strong>${html}</strong>`
    if (mark.type === 'italic') html = `<em>${html}</em>`
  }
  return html
}

const linkOf = (inline: Inline) => inline.type === 'text' ? inline.marks?.find(mark => mark.type === 'downloadLink')?.attrs : undefined

/** Neighbouring pieces of one link, bold and plain say, become one anchor. */
function renderInlines(inlines: Inline[] = [], known: PageFacts): string {
  let html = ''
  for (let index = 0; index < inlines.length;) {
    const link = linkOf(inlines[index]!)
    let next = index + 1
    while (link && next < inlines.length && linkOf(inlines[next]!)?.placement === link.placement) next++
    const run = inlines.slice(index, next)
    const inner = run.map(inline => renderInline(inline)).join('')
    const facts = link?.target ? known.target(link.target) : undefined
    if (link && facts) {
      const action = effectiveAction(link.action, facts)
      const words = run.map(inline => inline.type === 'text' ? inline.text : ' ').join('')
      html += anchor(link, action, facts, ' class="tr-link"', inner + spokenHtml(spokenFacts(words, action, facts)))
    }
    else {
      html += inner
    }
    index = next
  }
  return html
}

const blocksHtml = (blocks: Block[], known: PageFacts): string => blocks.map(block => renderBlock(block, known)).filter(Boolean).join('\n')

function renderBlock(block: Block, known: PageFacts): string {
  switch (block.type) {
    case 'paragraph': return `<p>${renderInlines(block.content, known)}</p>`
    case 'heading': {
      const inner = renderInlines(block.content, known)
      // An empty heading is a place in the outline with nothing to read (WCAG 2.2, 1.3.1).
      return inner && `<h${block.attrs.level}>${inner}</h${block.attrs.level}>`
    }
    case 'bulletList':
      return `<ul>${block.content.map(item => `<li>${renderItem(item.content, known)}</li>`).join('')}</ul>`
    case 'orderedList': {
      const start = block.attrs && block.attrs.start !== 1 ? ` start="${block.attrs.start}"` : ''
      return `<ol${start}>${block.content.map(item => `<li>${renderItem(item.content, known)}</li>`).join('')}</ol>`
    }
    case 'blockquote': return `<blockquote>${blocksHtml(block.content, known)}</blockquote>`
    case 'horizontalRule': return '<hr>'
    case 'space': return `<div class="tr-space tr-space-${block.attrs.size}"></div>`
    case 'downloadButton': return renderButton(block.attrs, known)
    case 'buttonRow': {
      const inner = blocksHtml(block.content ?? [], known)
      return inner && `<div class="tr-row tr-row-${block.attrs.align}">\n${inner}\n</div>`
    }
    case 'columns':
      return `<div class="tr-columns tr-columns-${block.content.length}">\n${block.content.map(column => `<div class="tr-column">\n${blocksHtml(column.content, known)}\n</div>`).join('\n')}\n</div>`
    case 'section': {
      const { tone, padding, width } = block.attrs
      return `<section class="tr-section tr-tone-${tone} tr-pad-${padding} tr-width-${width}">\n${blocksHtml(block.content, known)}\n</section>`
    }
    case 'shelf': return block.attrs.source ? renderShelf(block.attrs, known.shelf(block.attrs.source)) : ''
  }
}

/** An item of one paragraph needs no `p` of its own. */
function renderItem(blocks: Block[], known: PageFacts): string {
  return blocks.map((block, index) => index === 0 && block.type === 'paragraph'
    ? renderInlines(block.content, known)
    : renderBlock(block, known)).join('')
}

/** The body of a page: semantic HTML without script, the same for preview, live and export. */
export const renderBlocks = (document: PageDocument, known: PageFacts): string => blocksHtml(document.content, known)
