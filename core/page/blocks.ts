import type { Shown } from '../shelf/shown'
import type { Block, FoldBlock, Inline, Mark, PlainBlock } from './schema'

/** The blocks that lie right in another: of lists those of all items, of columns those of all columns. */
export function childrenOf(block: Block): Block[] {
  switch (block.type) {
    case 'bulletList':
    case 'orderedList':
    case 'columns':
      return block.content.flatMap((part: { content: Block[] }) => part.content)
    case 'table':
      return block.content.flatMap(row => row.content.flatMap(cell => cell.content))
    case 'fold':
      return block.content.slice(1) as PlainBlock[]
    case 'buttonRow':
      return block.content ?? []
    case 'blockquote':
    case 'section':
      return block.content
    // Filled, it is what is shown of its entries, not what was laid out for them.
    case 'entryList':
      return block.shown
        ? block.shown.groups.flatMap(({ entries }) => entries.flatMap(({ blocks, cells }) => [...blocks, ...cells.flat()]))
        : block.content
    default:
      return []
  }
}

/** Every block of a page, whatever it lies in. */
export function* everyBlock(document: { content: Block[] }): Generator<Block> {
  for (const block of document.content) {
    yield block
    yield* everyBlock({ content: childrenOf(block) })
  }
}

/** What a fold-out asks. */
export const questionOf = ({ content: [title] }: FoldBlock): string => (title.content ?? []).map(({ text }) => text).join('')

/** The words that stand right in a block. */
export const inlinesOf = (block: Block): Inline[] => (block.type === 'paragraph' || block.type === 'heading' ? (block.content ?? []) : [])

/** Words as a reader meets them; a line break is a space. */
export const textOf = (inlines: Inline[] = []): string =>
  inlines.map(inline => (inline.type === 'text' ? inline.text : inline.type === 'hardBreak' ? ' ' : '')).join('')

/** What has rules of its own: kinds of blocks and marks, and ways in which shelves are shown. */
export type PartName = Block['type'] | Mark['type'] | 'gallery' | 'shelfItems' | 'shelfTable'

/** What kinds of blocks and marks a page has. */
export function partsOf(document: { content: Block[] }): Set<PartName> {
  const found = new Set<PartName>()
  for (const block of everyBlock(document)) {
    found.add(block.type)
    if (block.type === 'shelf' && block.attrs.search) found.add('search')
    if (block.type === 'shelf' && block.attrs.source && 'below' in block.attrs.source && block.attrs.source.below !== 'no')
      found.add('fold')
    if (block.type === 'entryList' && block.attrs.search) found.add('search')
    if (block.type === 'entryList' && block.attrs.way === 'table') found.add('table')
    for (const inline of inlinesOf(block)) if (inline.type !== 'hardBreak') inline.marks?.forEach(mark => found.add(mark.type))
  }
  return found
}

/** What a shelf is made of, besides lines with a link. */
export function partsOfShelf({ layout, parts }: Shown): PartName[] {
  if (layout === 'pictures') return ['gallery']
  const plain = layout === 'lines' && parts.every(part => part === 'title' || part === 'facts')
  return layout === 'table' ? ['table', 'shelfTable', 'shelfItems'] : plain ? [] : ['shelfItems']
}

const EMPTY: Block[] = [{ type: 'paragraph' }]

/**
 * Blocks made anew from the inmost outwards: each becomes what `make` gives for it, several or none. What has to
 * hold something keeps an empty line; a row without buttons and a quote without words go.
 *
 * @param into which blocks are looked into; all where left out
 */
export function mapBlocks(blocks: Block[], make: (block: Block) => Block[], into: (block: Block) => boolean = () => true): Block[] {
  const inner = (content: Block[]) => mapBlocks(content, make, into)
  const filled = (content: Block[]) => (content.length ? content : EMPTY)
  return blocks.flatMap((block): Block[] => {
    if (!into(block)) return make(block)
    switch (block.type) {
      case 'bulletList':
      case 'orderedList':
      case 'columns': {
        const parts = block.content.map((part: { content: Block[] }) => ({ ...part, content: filled(inner(part.content)) }))
        return make({ ...block, content: parts } as Block)
      }
      case 'table': {
        const rows = block.content.map(row => ({
          ...row,
          content: row.content.map(cell => ({ ...cell, content: filled(inner(cell.content)) })),
        }))
        return make({ ...block, content: rows } as Block)
      }
      case 'fold': {
        const [title, ...answer] = block.content
        return make({ ...block, content: [title, ...filled(inner(answer))] } as Block)
      }
      case 'section':
      case 'entryList':
        return make({ ...block, content: filled(inner(block.content)) } as Block)
      case 'blockquote':
      case 'buttonRow': {
        const content = inner(block.content ?? [])
        return content.length ? make({ ...block, content } as Block) : []
      }
      default:
        return make(block)
    }
  })
}
