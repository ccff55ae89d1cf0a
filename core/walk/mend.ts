import { cut } from '../cut'
import type { Block, CardAttrs, Inline, PageDocument } from '../page/schema'
import { giveTarget, idOf, mapTargets } from '../page/targets'
import { inlinesOf, mapBlocks } from '../page/blocks'
import type { PageMend } from './finding'

const LONGEST_LABEL = 200

/** A link's words in place of those it had; what was bold in the first stays so. */
function withLinkWords(inlines: Inline[], placement: string, words: string): Inline[] {
  let written = false
  return inlines.flatMap((inline): Inline[] => {
    if (inline.type !== 'text' || !inline.marks?.some(mark => mark.type === 'downloadLink' && mark.attrs.placement === placement))
      return [inline]
    if (written) return []
    written = true
    return [{ ...inline, text: words }]
  })
}

function withWords(block: Block, placement: string, words: string): Block {
  if (block.type === 'downloadButton' && block.attrs.placement === placement)
    return { ...block, attrs: { ...block.attrs, label: cut(words, LONGEST_LABEL) } }
  if (block.type === 'fileCard' && block.attrs.placement === placement)
    return { ...block, attrs: { ...block.attrs, title: cut(words, LONGEST_LABEL) } }
  if ((block.type === 'paragraph' || block.type === 'heading') && block.content)
    return { ...block, content: withLinkWords(block.content, placement, words) }
  return block
}

/** A button or card with some of what it is changed. */
function withAttrs(block: Block, placement: string, change: (attrs: CardAttrs) => Partial<CardAttrs>): Block {
  if ((block.type !== 'downloadButton' && block.type !== 'fileCard') || block.attrs.placement !== placement) return block
  // A card has all that a button has.
  return { ...block, attrs: { ...block.attrs, ...change(block.attrs as CardAttrs) } } as Block
}

/** Blocks that go as a whole when they are taken off. */
const PLACED = ['picture', 'shelf', 'downloadButton', 'fileCard', 'entryList'] as const
const isPlaced = (block: Block): block is Extract<Block, { type: (typeof PLACED)[number] }> =>
  (PLACED as readonly string[]).includes(block.type)

/** A page with a finding mended; as it was where what shall be mended is not on it. */
export function applyMend(document: PageDocument, mend: PageMend): PageDocument {
  const each = (make: (block: Block) => Block): PageDocument => ({
    type: 'doc',
    content: mapBlocks(document.content, block => [make(block)]),
  })
  switch (mend.kind) {
    case 'words':
      return each(block => withWords(block, mend.placement, mend.words))
    case 'note':
      return each(block => withAttrs(block, mend.placement, () => ({ note: cut(mend.note, LONGEST_LABEL) })))
    case 'appearance':
      return each(block => withAttrs(block, mend.placement, ({ own }) => ({ own: { ...own, ...mend.change } })))
    case 'alt':
      return each(block =>
        block.type === 'picture' && block.attrs.placement === mend.placement
          ? { ...block, attrs: { ...block.attrs, alt: cut(mend.alt, 300) } }
          : block,
      )
    case 'target':
      return giveTarget(document, mend.placement, mend.target)
    case 'off': {
      const { placement, id } = mend
      if (id !== undefined) return mapTargets(document, (target, at) => (at === placement && idOf(target) === id ? 'remove' : target), id)
      const kept = mapBlocks(document.content, block => (isPlaced(block) && block.attrs.placement === placement ? [] : [block]))
      return mapTargets({ type: 'doc', content: kept }, (target, at) => (at === placement ? 'remove' : target))
    }
    case 'level': {
      let at = -1
      return each(block => {
        if (block.type !== 'heading' || !inlinesOf(block).length) return block
        at++
        return at === mend.heading ? { ...block, attrs: { level: mend.level } } : block
      })
    }
  }
}
