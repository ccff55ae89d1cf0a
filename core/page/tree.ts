import type { Block, PageDocument } from './schema'

/** The blocks that lie right in another: of lists those of all items, of columns those of all columns. */
export function childrenOf(block: Block): Block[] {
  switch (block.type) {
    case 'bulletList':
    case 'orderedList':
    case 'columns': return block.content.flatMap((part: { content: Block[] }) => part.content)
    case 'buttonRow': return block.content ?? []
    case 'blockquote':
    case 'section': return block.content
    default: return []
  }
}

/** Every block of a page, whatever it lies in. */
export function* everyBlock(document: PageDocument | { content: Block[] }): Generator<Block> {
  for (const block of document.content) {
    yield block
    yield* everyBlock({ content: childrenOf(block) })
  }
}

const EMPTY: Block[] = [{ type: 'paragraph' }]

/**
 * Blocks made anew from the inmost outwards: each becomes what `make` gives for it, several or none. What has to
 * hold something keeps an empty line; a row without buttons and a quote without words go.
 */
export function mapBlocks(blocks: Block[], make: (block: Block) => Block[]): Block[] {
  const inner = (content: Block[]) => mapBlocks(content, make)
  const filled = (content: Block[]) => content.length ? content : EMPTY
  return blocks.flatMap((block): Block[] => {
    switch (block.type) {
      case 'bulletList':
      case 'orderedList':
      case 'columns': {
        const parts = block.content.map((part: { content: Block[] }) => ({ ...part, content: filled(inner(part.content)) }))
        return make({ ...block, content: parts } as Block)
      }
      case 'section': return make({ ...block, content: filled(inner(block.content)) } as Block)
      case 'blockquote':
      case 'buttonRow': {
        const content = inner(block.content ?? [])
        return content.length ? make({ ...block, content } as Block) : []
      }
      default: return make(block)
    }
  })
}
