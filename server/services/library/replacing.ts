import { and, eq, inArray } from 'drizzle-orm'
import type { BundleUse } from '../../../core/bundle/retarget'
import type { FileItem, FileUse } from '../../../core/files/item'
import { newId } from '../../../core/id'
import { Problem } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { bundles, looks, pages as pageTable, signposts } from '../../db/schema'
import { bundlesWith, retargetInBundles } from '../bundles/holding'
import type { Events } from '../events'
import { filledLooks, refillLooks } from '../looks/filled'
import type { PageService, Rewritten } from '../pages/pages'
import { getFile, usesOf } from './items'

/** What leans on files. */
export interface Leaning { places: FileUse[], held: BundleUse[] }

/**
 * Gives all that leans on files another one, or takes it off where there is none, in the caller's transaction.
 *
 * @param going the files that are leaned on
 * @returns the pages as they were before, and the signposts that were turned
 */
export async function settle(tx: Queryable, pages: PageService, going: string[], { places, held }: Leaning, instead: FileItem | undefined): Promise<{ rewritten: Rewritten[], turned: string[] }> {
  const rewritten: Rewritten[] = []
  for (const id of new Set(places.flatMap(place => place.fileId ?? []))) {
    rewritten.push(...await pages.retarget(tx, { kind: 'file', id }, instead ? { kind: 'file', id: instead.id } : 'remove'))
    await refillLooks(tx, id, instead?.id)
  }
  // What leads there by a signpost follows it, or goes with the rest.
  const turned = (await tx.update(signposts).set({ fileId: instead?.id ?? null, changed: new Date() }).where(inArray(signposts.fileId, going)).returning({ id: signposts.id })).map(row => row.id)
  if (!instead) for (const id of turned) rewritten.push(...await pages.retarget(tx, { kind: 'signpost', id }, 'remove'))
  await retargetInBundles(tx, held, instead)
  return { rewritten, turned }
}

/** Replacements that can be taken back, the newest ones. */
const MOST_KEPT = 20

interface Replaced {
  from: string
  to: string
  rewritten: Rewritten[]
  turned: string[]
  pictured: string[]
  bundles: { id: string, entries: typeof bundles.$inferSelect['entries'] }[]
  looks: { id: string, appearance: typeof looks.$inferSelect['appearance'] }[]
}

/** Puts one file in the place of another everywhere, and takes that back. */
export function createReplacing(db: Database, pages: PageService, events: Events) {
  const kept = new Map<string, Replaced>()

  function tell(files: string[], turned: string[]): void {
    events.emit('library', files)
    if (turned.length) events.emit('signposts', turned)
    events.emit('live')
    events.emit('uses')
  }

  return {
    /**
     * Every button, link, card, picture, shelf, look, signpost and bundle that has one file gets another, all or none.
     *
     * @returns how many places changed, and by what that is taken back
     * @throws Problem 422 where that file cannot be put there
     */
    async replace(from: string, to: string): Promise<{ places: number, undo: string }> {
      if (from === to) throw new Problem(422, 'A file cannot take its own place.', 'Choose another file.')
      const { places, ...done } = await db.transaction(async (tx) => {
        await getFile(tx, from)
        const other = await getFile(tx, to)
        if (other.deleted) throw new Problem(422, 'That file is in the bin itself.', 'Restore it first, or choose another.')
        const leaning = { places: await usesOf(tx, [from]), held: await bundlesWith(tx, [from], []) }
        const holders = leaning.held.map(use => use.bundleId)
        const filled = (await filledLooks(tx)).filter(({ fileId }) => fileId === from).map(({ lookId }) => lookId)
        const before = {
          pictured: (await tx.select({ id: pageTable.id }).from(pageTable).where(eq(pageTable.picture, from))).map(row => row.id),
          bundles: holders.length ? await tx.select({ id: bundles.fileId, entries: bundles.entries }).from(bundles).where(inArray(bundles.fileId, holders)) : [],
          looks: filled.length ? await tx.select({ id: looks.id, appearance: looks.appearance }).from(looks).where(inArray(looks.id, filled)) : [],
        }
        return { places: leaning.places.length + leaning.held.length, ...before, ...await settle(tx, pages, [from], leaning, other) }
      })
      const undo = newId()
      kept.set(undo, { from, to, ...done })
      for (const oldest of [...kept.keys()].slice(0, -MOST_KEPT)) kept.delete(oldest)
      tell([from, to, ...done.bundles.map(bundle => bundle.id)], done.turned)
      return { places, undo }
    },

    /** @throws Problem 404 where that was long ago, 409 where a page has been changed since */
    async takeBack(undo: string): Promise<void> {
      const done = kept.get(undo)
      if (!done) throw new Problem(404, 'That can no longer be taken back here.', 'Put the other file in its place instead.')
      await db.transaction(async (tx) => {
        await pages.takeBackIn(tx, done.rewritten)
        if (done.turned.length) await tx.update(signposts).set({ fileId: done.from }).where(and(inArray(signposts.id, done.turned), eq(signposts.fileId, done.to)))
        if (done.pictured.length) await tx.update(pageTable).set({ picture: done.from }).where(and(inArray(pageTable.id, done.pictured), eq(pageTable.picture, done.to)))
        for (const { id, entries } of done.bundles) await tx.update(bundles).set({ entries, composed: new Date() }).where(eq(bundles.fileId, id))
        for (const { id, appearance } of done.looks) await tx.update(looks).set({ appearance }).where(eq(looks.id, id))
      })
      kept.delete(undo)
      tell([done.from, done.to, ...done.bundles.map(bundle => bundle.id)], done.turned)
    },
  }
}
