import { isWideList } from '~~/core/catalogue/listAttrs'
import { everyBlock } from '~~/core/page/blocks'
import type { PageDocument } from '~~/core/page/schema'

/** Screens a visitor may have. */
export const SCREENS = {
  desktop: { words: 'Desktop' },
  tablet: { words: 'Tablet' },
  phone: { words: 'Phone' },
} as const
export type ScreenName = keyof typeof SCREENS

/** CSS pixels a page has on each; on a desktop as many as it can use: on wider ones its margins alone grow. */
export const PAGE_WIDTHS: Record<ScreenName, number> = { desktop: 1080, tablet: 768, phone: 390 }

/** CSS pixels of the middle of a page on a desktop that hold all but its wide parts (43rem), with a little of its margins. */
const MIDDLE = 768

const isWide = (document: PageDocument): boolean => {
  for (const block of everyBlock(document)) {
    if (block.type === 'section' && block.attrs.width === 'wide') return true
    if (block.type === 'picture' && block.attrs.size === 'wide') return true
    if (block.type === 'entryList' && isWideList(block.attrs)) return true
  }
  return false
}

/** How many CSS pixels of a page the sheet has to show: without its empty margins, as far as nothing stands in them. */
export const shownWidth = (screen: ScreenName, document: PageDocument | undefined): number =>
  screen === 'desktop' && !(document && isWide(document)) ? MIDDLE : PAGE_WIDTHS[screen]
