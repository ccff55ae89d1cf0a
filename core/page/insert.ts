import { newId } from '../id'
import type { ButtonAttrs, ShelfAttrs, ShelfSource, Target } from './schema'

/** The identity of a new placement. */
export const newPlacementId = () => newId(10)

/** A button as it starts out: it says what it gives, and leaves the page open (common practice for PDFs). */
export function newButton(target: Target | null, label: string): ButtonAttrs {
  return { placement: newPlacementId(), target, label, note: '{type}, {size}', action: 'tab', saveAs: '', look: 'slab', align: 'left' }
}

/** A shelf as it starts out. */
export function newShelf(source: ShelfSource | null): ShelfAttrs {
  return { placement: newPlacementId(), source, action: 'tab', pick: true, zipName: '' }
}
