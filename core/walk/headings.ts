import type { PageDocument } from '../page/schema'
import { everyBlock, inlinesOf } from '../page/blocks'

/** The headings of a page that have words, in their order; visitors do not get empty ones. */
export const headingsOf = (document: PageDocument): { level: 2 | 3 | 4; words: string }[] =>
  [...everyBlock(document)].flatMap(block => {
    if (block.type !== 'heading') return []
    const words = inlinesOf(block)
      .map(inline => (inline.type === 'text' ? inline.text : ' '))
      .join('')
    return words ? [{ level: block.attrs.level, words }] : []
  })
