import { z } from 'zod'
import { ownShownSchema, shownOf, type OwnShown, type Shown } from './shown'

export const shelfLookIdSchema = z.string().regex(/^[a-z0-9]{3,40}$/)
export const shelfLookNameSchema = z.string().trim().min(1, 'Give the look a name.').max(60, 'Keep the name of a look to 60 characters.')
export const newShelfLookSchema = z.object({ name: shelfLookNameSchema, shown: ownShownSchema })
export type NewShelfLook = z.infer<typeof newShelfLookSchema>

/** A saved way of showing files: whatever shelf wears it follows it. */
export const shelfLookSchema = newShelfLookSchema.extend({ id: shelfLookIdSchema })
export type ShelfLook = z.infer<typeof shelfLookSchema>
export const MOST_SHELF_LOOKS = 100

/** What decides how a shelf is shown. */
export interface Wearing {
  layout?: Shown['layout'] | null
  look?: string | null
  shown?: OwnShown | null
}

/** How a shelf is shown: as its look says, but for what it has of its own. A look that is gone says nothing. */
export function shownBy({ layout, look, shown }: Wearing, looks: (id: string) => OwnShown | undefined): Shown {
  const worn = look ? looks(look) : undefined
  return shownOf({ ...worn, ...(layout && { layout }), ...shown })
}
