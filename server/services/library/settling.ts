import { inArray } from 'drizzle-orm'
import type { BundleUse } from '../../../core/bundle/retarget'
import type { FileItem, Use } from '../../../core/files/fileItem'
import type { Queryable } from '../../db/connection'
import { signposts } from '../../db/schema'
import { retargetInBundles } from '../bundles/holding'
import { refillLooks } from '../uses/filled'
import type { PageService } from '../pages/pages'
import type { Rewritten } from '../pages/rewriting'

/** What leans on files. */
export interface Leaning { places: Use[], held: BundleUse[] }

/**
 * Gives all that leans on files another one, or takes it off where there is none, in the caller's transaction.
 *
 * @param going the files that are leaned on
 * @returns the pages as they were before, and the signposts that were turned
 */
export async function settle(tx: Queryable, pages: PageService, going: string[], { places, held }: Leaning, instead: FileItem | undefined): Promise<{ rewritten: Rewritten[], turned: string[] }> {
  const rewritten: Rewritten[] = []
  for (const id of new Set(places.flatMap(place => place.fileId ?? []))) {
    rewritten.push(...(await pages.retarget(tx, { kind: 'file', id }, instead ? { kind: 'file', id: instead.id } : 'remove')).rewritten)
    await refillLooks(tx, id, instead?.id)
  }
  // What leads there by a signpost follows it, or goes with the rest.
  const turned = (await tx.update(signposts).set({ fileId: instead?.id ?? null, changed: new Date() }).where(inArray(signposts.fileId, going)).returning({ id: signposts.id })).map(row => row.id)
  if (!instead) for (const id of turned) rewritten.push(...(await pages.retarget(tx, { kind: 'signpost', id }, 'remove')).rewritten)
  await retargetInBundles(tx, held, instead)
  return { rewritten, turned }
}
