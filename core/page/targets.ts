import type { Action, Block, ButtonAttrs, Inline, Mark, PageDocument, Target } from './schema'

/** One button or link on a page, with the words it is known by. */
export interface Placement {
  id: string
  kind: 'button' | 'link'
  /** what a visitor reads */
  label: string
  target: Target | null
  action: Action
  saveAs: string
}

function* inlinesOf(block: Block): Generator<Inline[]> {
  if (block.type === 'paragraph' || block.type === 'heading') yield block.content ?? []
  if (block.type === 'bulletList' || block.type === 'orderedList') {
    for (const item of block.content) for (const inner of item.content) yield* inlinesOf(inner)
  }
}

function* buttonsOf(block: Block): Generator<ButtonAttrs> {
  if (block.type === 'downloadButton') yield block.attrs
  if (block.type === 'bulletList' || block.type === 'orderedList') {
    for (const item of block.content) for (const inner of item.content) yield* buttonsOf(inner)
  }
}

/** All placements of a page, buttons and links; a link over several pieces of text is one. */
export function placementsOf(document: PageDocument): Placement[] {
  const found = new Map<string, Placement>()
  for (const block of document.content) {
    for (const { placement, label, target, action, saveAs } of buttonsOf(block)) {
      found.set(placement, { id: placement, kind: 'button', label, target, action, saveAs })
    }
    for (const inlines of inlinesOf(block)) {
      for (const inline of inlines) {
        if (inline.type !== 'text') continue
        for (const mark of inline.marks ?? []) {
          if (mark.type !== 'downloadLink') continue
          const { placement, target, action, saveAs } = mark.attrs
          const earlier = found.get(placement)
          found.set(placement, { id: placement, kind: 'link', label: (earlier?.label ?? '') + inline.text, target, action, saveAs })
        }
      }
    }
  }
  return [...found.values()]
}

/**
 * The document with the target of every placement decided anew: the same or another target keeps the
 * placement, `'remove'` takes a button off and leaves a link's words as plain text.
 */
export function mapTargets(document: PageDocument, decide: (target: Target | null, placement: string) => Target | null | 'remove'): PageDocument {
  const mapInline = (inline: Inline): Inline => {
    if (inline.type !== 'text' || !inline.marks) return inline
    const marks = inline.marks.flatMap((mark): Mark[] => {
      if (mark.type !== 'downloadLink') return [mark]
      const target = decide(mark.attrs.target, mark.attrs.placement)
      return target === 'remove' ? [] : [{ ...mark, attrs: { ...mark.attrs, target } }]
    })
    const { marks: _, ...bare } = inline
    return marks.length ? { ...bare, marks } : bare
  }
  const mapBlocks = (blocks: Block[]): Block[] => blocks.flatMap((block): Block[] => {
    if (block.type === 'downloadButton') {
      const target = decide(block.attrs.target, block.attrs.placement)
      return target === 'remove' ? [] : [{ ...block, attrs: { ...block.attrs, target } }]
    }
    if (block.type === 'bulletList' || block.type === 'orderedList') {
      const items = block.content.map(item => ({ ...item, content: orParagraph(mapBlocks(item.content)) }))
      return [{ ...block, content: items }]
    }
    return block.content ? [{ ...block, content: block.content.map(mapInline) }] : [block]
  })
  return { type: 'doc', content: orParagraph(mapBlocks(document.content)) }
}

const orParagraph = (blocks: Block[]): Block[] => blocks.length ? blocks : [{ type: 'paragraph' }]
