import { everyBlock } from './blocks'
import type { Block, PageDocument } from './schema'

/** What belongs at a place where nothing is written yet; undefined where something is, or nothing has to be. */
export const ghostOf = (block: Block): string | undefined =>
  (block.type === 'paragraph' || block.type === 'heading') && !block.content?.length ? block.attrs?.ghost : undefined

/** What is still to be written on a page: it is shown while the page is written on, and not to visitors. */
export const ghostsIn = (document: PageDocument): string[] => [...everyBlock(document)].flatMap(block => ghostOf(block) ?? [])
