import type { Block, ButtonAttrs, PageDocument } from './schema'
import { everyBlock, mapBlocks } from './blocks'

type Wearer = Extract<Block, { type: 'downloadButton' | 'fileCard' }>
const wears = (block: Block): block is Wearer => block.type === 'downloadButton' || block.type === 'fileCard'

/** All buttons of a page, those of cards among them. */
export const buttonsIn = (document: PageDocument): ButtonAttrs[] =>
  [...everyBlock(document)].flatMap(block => (wears(block) ? [block.attrs] : []))

/** The document with the look of every button decided anew. */
export const mapLooks = (document: PageDocument, decide: (look: string) => string): PageDocument => ({
  type: 'doc',
  content: mapBlocks(document.content, block =>
    wears(block) ? [{ ...block, attrs: { ...block.attrs, look: decide(block.attrs.look) } } as Wearer] : [block],
  ),
})
