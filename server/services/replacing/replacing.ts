import { eq } from 'drizzle-orm'
import type { Target } from '../../../core/page/schema'
import { keyOf } from '../../../core/page/targets'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { pages as pageTable } from '../../db/schema'
import { getFile } from '../files/items'
import type { PageService } from '../pages/pages'
import type { Signposts } from '../signposts/signposts'
import type { Holders, Places, TakeBack } from '../uses/holders'
import { createTakeBacks } from '../uses/takeBacks'
import { usesOfTarget } from '../uses/usesOf'

interface Replaced {
  takeBack: TakeBack
  /** how many changed */ places: number
}

/** Puts one target in the place of another everywhere, and takes that back. */
export function createReplacing(db: Database, pages: PageService, signpostService: Pick<Signposts, 'get'>, holders: Holders) {
  const takeBacks = createTakeBacks()

  /** @throws Problem 404 where a target is not there, 422 where it is in the bin */
  async function mustBeThere(tx: Queryable, target: Target): Promise<void> {
    if (target.kind === 'signpost') await signpostService.get(target.id, tx)
    if (target.kind === 'file' && (await getFile(tx, target.id)).deleted)
      throw new Problem(422, 'That file is in the bin itself.', 'Restore it first, or choose another.')
    if (target.kind !== 'page') return
    const [page] = await tx.select({ edge: pageTable.edge, title: pageTable.title }).from(pageTable).where(eq(pageTable.id, target.id))
    if (!page) throw notFound('page')
    if (page.edge) throw new Problem(422, `“${page.title}” is no page of its own: it stands on each of them.`, 'Choose another page.')
  }

  /** Where nothing but a file can stand, everything that leans on one follows. */
  async function replaceFile(tx: Queryable, from: string, to: string): Promise<Replaced> {
    const on = { files: [from], folders: [] }
    const { uses, bundles } = await holders.places(tx, on)
    return { places: uses.length + bundles.length, takeBack: await holders.lead(tx, on, await getFile(tx, to)) }
  }

  async function retarget(tx: Queryable, from: Target, to: Target | null): Promise<Replaced> {
    const { rewritten, places } = await pages.retarget(tx, from, to ?? 'remove')
    return { places, takeBack: later => pages.leadBack(later, rewritten) }
  }

  return {
    /** Where a target is led to or shown, drafts and live pages merged by placement; and bundles that hold it. */
    async places(target: Target): Promise<Places> {
      return target.kind === 'file'
        ? holders.places(db, { files: [target.id], folders: [] })
        : { uses: await usesOfTarget(db, target), bundles: [] }
    },

    /**
     * Everything that leads to one target leads to another, or is taken off where that is null; all or none. Where a file
     * takes the place of a file, pictures, shelves, looks, signposts and bundles follow, too: nothing but a file can stand there.
     *
     * @returns how many places changed, and by what that is taken back
     * @throws Problem 404 or 422 where the other target cannot be put there
     */
    async replace(from: Target, to: Target | null): Promise<{ places: number; undo: string }> {
      if (to && keyOf(from) === keyOf(to)) throw new Problem(422, 'Nothing can take its own place.', 'Choose something else.')
      if (!to && from.kind === 'file')
        throw new Problem(
          422,
          'A file is taken off its places when it is deleted.',
          'Delete it, and choose to take it off; or put something in its place.',
        )
      const done = await db.transaction(async tx => {
        if (from.kind === 'file') await getFile(tx, from.id)
        if (to) await mustBeThere(tx, to)
        return from.kind === 'file' && to?.kind === 'file' ? replaceFile(tx, from.id, to.id) : retarget(tx, from, to)
      })
      const undo = takeBacks.keep(async tx => {
        // What is gone since is nothing to lead back to.
        await mustBeThere(tx, from)
        await done.takeBack(tx)
      })
      return { places: done.places, undo }
    },

    /**
     * @throws Problem 404 where that was long ago or the former target is gone, 422 where that is in the bin, 409 where a place was
     * taken off a page that has been changed since
     */
    async takeBack(undo: string): Promise<void> {
      await db.transaction(takeBacks.find(undo))
      takeBacks.forget(undo)
    },
  }
}
export type Replacing = ReturnType<typeof createReplacing>
