import { and, eq, inArray } from 'drizzle-orm'
import type { BundleUse } from '../../../core/bundle/retarget'
import type { Use } from '../../../core/files/fileItem'
import { newId } from '../../../core/id'
import type { Target } from '../../../core/page/schema'
import { keyOf } from '../../../core/page/targets'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { bundles, looks, pages as pageTable, signposts } from '../../db/schema'
import { bundlesWith } from '../bundles/holding'
import { getFile } from '../files/items'
import { settle } from '../library/settling'
import { filledLooks } from '../uses/filled'
import type { PageService } from '../pages/pages'
import type { Rewritten } from '../pages/rewriting'
import type { Signposts } from '../signposts/signposts'
import { usesOf, usesOfTarget } from '../uses/usesOf'

/** Replacements that can be taken back, the newest ones. */
const MOST_KEPT = 20

type Of<Kind extends Target['kind']> = Extract<Target, { kind: Kind }>

/** A replacement as it has to be known to take it back. */
interface Replaced {
  from: Target
  rewritten: Rewritten[]
  /** what else followed where a file took the place of another */
  files?: {
    from: string
    to: string
    turned: string[]
    pictured: string[]
    bundles: { id: string, entries: typeof bundles.$inferSelect['entries'] }[]
    looks: { id: string, appearance: typeof looks.$inferSelect['appearance'] }[]
  }
}

/** Puts one target in the place of another everywhere, and takes that back. */
export function createReplacing(db: Database, pages: PageService, signpostService: Pick<Signposts, 'get'>) {
  const kept = new Map<string, Replaced>()

  /** @throws Problem 404 where a target is not there, 422 where it is in the bin */
  async function mustBeThere(tx: Queryable, target: Target): Promise<void> {
    if (target.kind === 'signpost') await signpostService.get(target.id, tx)
    if (target.kind === 'file' && (await getFile(tx, target.id)).deleted) throw new Problem(422, 'That file is in the bin itself.', 'Restore it first, or choose another.')
    if (target.kind !== 'page') return
    const [page] = await tx.select({ edge: pageTable.edge, title: pageTable.title }).from(pageTable).where(eq(pageTable.id, target.id))
    if (!page) throw notFound('page')
    if (page.edge) throw new Problem(422, `“${page.title}” is no page of its own: it stands on each of them.`, 'Choose another page.')
  }

  async function replaceFile(tx: Queryable, { id: from }: Of<'file'>, { id: to }: Of<'file'>): Promise<Replaced & { places: number }> {
    const other = await getFile(tx, to)
    const leaning = { places: await usesOf(tx, [from]), held: await bundlesWith(tx, [from], []) }
    const holders = leaning.held.map(use => use.bundleId)
    const filled = (await filledLooks(tx)).filter(({ fileId }) => fileId === from).map(({ lookId }) => lookId)
    const before = {
      pictured: (await tx.select({ id: pageTable.id }).from(pageTable).where(eq(pageTable.picture, from))).map(row => row.id),
      bundles: holders.length ? await tx.select({ id: bundles.fileId, entries: bundles.entries }).from(bundles).where(inArray(bundles.fileId, holders)) : [],
      looks: filled.length ? await tx.select({ id: looks.id, appearance: looks.appearance }).from(looks).where(inArray(looks.id, filled)) : [],
    }
    const { rewritten, turned } = await settle(tx, pages, [from], leaning, other)
    return { from: { kind: 'file', id: from }, places: leaning.places.length + leaning.held.length, rewritten, files: { from, to, turned, ...before } }
  }

  return {
    /** Where a target is led to or shown, drafts and live pages merged by placement; and bundles that hold it. */
    async places(target: Target): Promise<{ uses: Use[], bundles: BundleUse[] }> {
      return { uses: await usesOfTarget(db, target), bundles: target.kind === 'file' ? await bundlesWith(db, [target.id], []) : [] }
    },

    /**
     * Everything that leads to one target leads to another, or is taken off where that is null; all or none. Where a file
     * takes the place of a file, pictures, shelves, looks, signposts and bundles follow, too: nothing but a file can stand there.
     *
     * @returns how many places changed, and by what that is taken back
     * @throws Problem 404 or 422 where the other target cannot be put there
     */
    async replace(from: Target, to: Target | null): Promise<{ places: number, undo: string }> {
      if (to && keyOf(from) === keyOf(to)) throw new Problem(422, 'Nothing can take its own place.', 'Choose something else.')
      if (!to && from.kind === 'file') throw new Problem(422, 'A file is taken off its places when it is deleted.', 'Delete it, and choose to take it off; or put something in its place.')
      const { places, ...done } = await db.transaction(async (tx): Promise<Replaced & { places: number }> => {
        if (from.kind === 'file') await getFile(tx, from.id)
        if (to) await mustBeThere(tx, to)
        return from.kind === 'file' && to?.kind === 'file' ? replaceFile(tx, from, to) : { from, ...await pages.retarget(tx, from, to ?? 'remove') }
      })
      const undo = newId()
      kept.set(undo, done)
      for (const oldest of [...kept.keys()].slice(0, -MOST_KEPT)) kept.delete(oldest)
      return { places, undo }
    },

    /** @throws Problem 404 where that was long ago or the former target is gone, 422 where that is in the bin, 409 where a page has been changed since */
    async takeBack(undo: string): Promise<void> {
      const done = kept.get(undo)
      if (!done) throw new Problem(404, 'That can no longer be taken back here.', 'Put the former one in its place instead.')
      const { from, rewritten, files } = done
      await db.transaction(async (tx) => {
        // What is gone since is nothing to lead back to.
        await mustBeThere(tx, from)
        await pages.takeBackIn(tx, rewritten)
        if (!files) return
        if (files.turned.length) await tx.update(signposts).set({ fileId: files.from }).where(and(inArray(signposts.id, files.turned), eq(signposts.fileId, files.to)))
        if (files.pictured.length) await tx.update(pageTable).set({ picture: files.from }).where(and(inArray(pageTable.id, files.pictured), eq(pageTable.picture, files.to)))
        for (const { id, entries } of files.bundles) await tx.update(bundles).set({ entries, composed: new Date() }).where(eq(bundles.fileId, id))
        for (const { id, appearance } of files.looks) await tx.update(looks).set({ appearance }).where(eq(looks.id, id))
      })
      kept.delete(undo)
    },
  }
}
export type Replacing = ReturnType<typeof createReplacing>
