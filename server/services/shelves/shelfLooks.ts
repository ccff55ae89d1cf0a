import { z } from 'zod'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import { MOST_SHELF_LOOKS, shelfLookSchema, type NewShelfLook, type ShelfLook } from '../../../core/shelf/shelfLook'
import type { OwnShown } from '../../../core/shelf/shown'
import type { Database } from '../../db/connection'
import type { PageService } from '../pages/pages'
import { settingsList } from '../settingsList'

/** Told of in migrations/0022_shelf_looks.sql, with that of the icons. */
const SHELF_LOOKS_KEY = 'shelf-looks'

/** Saved ways of showing files. */
export function createShelfLooks(db: Database, pages: PageService) {
  const list = settingsList<ShelfLook>(db, SHELF_LOOKS_KEY, z.array(shelfLookSchema))

  function checkName(looks: ShelfLook[], name: string, except?: string): void {
    if (looks.some(look => look.name === name && look.id !== except))
      throw new Problem(409, `There is a look named “${name}” already.`, 'Choose another name.', { field: 'name' })
  }

  return {
    list: () => list.read(),

    /** What each look says, by its identity. */
    shown: async (): Promise<Map<string, OwnShown>> => new Map((await list.read()).map(({ id, shown }) => [id, shown])),

    /** @throws Problem 409 where the name is taken, or there are too many */
    create: (given: NewShelfLook): Promise<ShelfLook> =>
      list.change(async looks => {
        checkName(looks, given.name)
        if (looks.length >= MOST_SHELF_LOOKS)
          throw new Problem(409, `There are ${MOST_SHELF_LOOKS} looks of shelves already.`, 'Delete one that no shelf wears.')
        const look = { id: newId(), ...given }
        return { items: [...looks, look], given: look }
      }),

    /**
     * Changes a look; every shelf that wears it follows at once.
     *
     * @throws Problem 404, or 409 where the name is taken
     */
    change: (id: string, change: Partial<NewShelfLook>): Promise<ShelfLook> =>
      list.change(async looks => {
        const before = looks.find(look => look.id === id)
        if (!before) throw notFound('look')
        if (change.name !== undefined) checkName(looks, change.name, id)
        const look = { ...before, ...change }
        return { items: looks.map(each => (each.id === id ? look : each)), given: look }
      }),

    /**
     * Deletes a look; shelves that wear it stay as they look, by settings of their own.
     *
     * @throws Problem 404
     */
    remove: (id: string): Promise<void> =>
      list.change(async (looks, tx) => {
        const look = looks.find(each => each.id === id)
        if (!look) throw notFound('look')
        await pages.keepShown(tx, look)
        return { items: looks.filter(each => each.id !== id), given: undefined }
      }),
  }
}
export type ShelfLooks = ReturnType<typeof createShelfLooks>
