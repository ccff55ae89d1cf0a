import { newId } from '../id'
import type { LetterboxAttrs } from '../letterbox/letterbox'
import type { Action, ButtonAttrs, CardAttrs, PictureAttrs, PrivacyAttrs, SearchAttrs, ShelfAttrs, Target } from './schema'
import type { ShelfSource } from '../shelf/shelfSource'

/** The identity of a new placement. */
export const newPlacementId = () => newId(10)

/** What a click does at first: a file leaves the page open (common practice for PDFs), another place comes instead of it. */
export const firstAction = (target: Target | null): Action =>
  !target || target.kind === 'file' || target.kind === 'signpost' || (target.kind === 'field' && target.field !== 'page') ? 'tab' : 'here'

/** What a new button wears, says besides its label, and does; what is left out is as usual. */
export type ButtonStart = Pick<ButtonAttrs, 'look' | 'note'> & Partial<Pick<ButtonAttrs, 'own' | 'action' | 'align'>>
export const ON_A_PAGE: ButtonStart = { look: 'slab', note: '{type}, {size}' }
/** In menus words stand close to each other. */
export const ON_AN_EDGE: ButtonStart = { look: 'bare', note: '{type}' }

/** A button as it starts out: it says what it gives. */
export function newButton(target: Target | null, label: string, start: ButtonStart = ON_A_PAGE): ButtonAttrs {
  return { placement: newPlacementId(), target, label, action: firstAction(target), saveAs: '', align: 'left', ...start }
}

/** A card as it starts out. */
export function newCard(target: Target | null): CardAttrs {
  return { ...newButton(target, 'Download'), title: '', text: '', pictured: true }
}

/** How many cards stand in each line: three, or two where one would be left alone. */
export function cardLines(count: number): number[] {
  if (count <= 3) return [count]
  return count % 3 === 1 ? [...cardLines(count - 4), 2, 2].filter(Boolean) : [3, ...cardLines(count - 3)]
}

/** A picture as it starts out. */
export function newPicture(file: string | null): PictureAttrs {
  return {
    placement: newPlacementId(),
    file,
    alt: '',
    decorative: false,
    caption: '',
    size: 'text',
    align: 'middle',
    target: null,
    action: 'tab',
    saveAs: '',
  }
}

/** A search field as it starts out: it looks through all that visitors may find. */
export function newSearch(): SearchAttrs {
  return { placement: newPlacementId(), label: '', folders: [] }
}

export const newPrivacy = (): PrivacyAttrs => ({ placement: newPlacementId() })

/** A letterbox as it starts out: it takes a few files of any kind. */
export function newLetterbox(): LetterboxAttrs {
  return { placement: newPlacementId(), label: '', text: '', folder: null, kinds: [], most: 5, largest: 20 }
}

/** A shelf as it starts out. */
export function newShelf(source: ShelfSource | null): ShelfAttrs {
  return { placement: newPlacementId(), source, action: 'tab', pick: true, zipName: '' }
}
