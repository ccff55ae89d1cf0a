import { mapBlocks } from '../page/blocks'
import type { PageDocument } from '../page/schema'
import { shownBy, type ShelfLook } from './shelfLook'

/** The document with the shelves that wear a look keeping what it says as settings of their own. */
export const withoutLook = (document: PageDocument, look: ShelfLook): PageDocument => ({
  type: 'doc',
  content: mapBlocks(document.content, block => {
    if (block.type !== 'shelf' || block.attrs.look !== look.id) return [block]
    const { layout, ...shown } = shownBy(block.attrs, () => look.shown)
    return [{ ...block, attrs: { ...block.attrs, look: null, layout, shown } }]
  }),
})
