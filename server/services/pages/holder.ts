import { and, asc, eq, isNull } from 'drizzle-orm'
import type { Use } from '../../../core/files/fileItem'
import { among } from '../../db/among'
import type { Queryable } from '../../db/connection'
import { pages as pageTable } from '../../db/schema'
import type { Holder } from '../uses/holders'
import { usesOnPages } from '../uses/usesOf'
import type { PageService } from './pages'
import type { Rewritten } from './rewriting'

/** The pages some files are shown with where those pages are linked to elsewhere. */
const sharedWith = (q: Queryable, files: string[]) =>
  q
    .select({ fileId: pageTable.picture, pageId: pageTable.id, pageTitle: pageTable.title, live: pageTable.live })
    .from(pageTable)
    .where(among(pageTable.picture, files))
    .orderBy(asc(pageTable.title))

/** What pages lead to and show, and the picture that goes with links to them. */
export const pageHolder = (pages: PageService): Holder => ({
  async places(q, on) {
    const shared = on.files.length ? await sharedWith(q, on.files) : []
    const asUses = shared.map(({ live, ...row }): Use => ({
      ...row,
      folderId: null,
      placement: `shared-${row.pageId}`,
      kind: 'picture',
      label: 'with links to this page',
      section: '',
      by: null,
      draft: true,
      live: live !== null,
    }))
    return { uses: [...(await usesOnPages(q, on)), ...asUses] }
  },

  async lead(tx, on, instead) {
    const shared = on.files.length ? await sharedWith(tx, on.files) : []
    const places = await usesOnPages(tx, on)
    const rewritten: Rewritten[] = []
    for (const id of new Set([...places, ...shared].flatMap(place => place.fileId ?? []))) {
      rewritten.push(...(await pages.retarget(tx, { kind: 'file', id }, instead ? { kind: 'file', id: instead.id } : 'remove')).rewritten)
    }
    // No file can take the place of a folder: its shelf goes.
    for (const id of new Set(places.flatMap(place => place.folderId ?? [])))
      rewritten.push(...(await pages.retarget(tx, { kind: 'folder', id }, 'remove')).rewritten)
    return async later => {
      await pages.leadBack(later, rewritten)
      for (const { pageId, fileId } of shared)
        await later
          .update(pageTable)
          .set({ picture: fileId })
          .where(and(eq(pageTable.id, pageId), instead ? eq(pageTable.picture, instead.id) : isNull(pageTable.picture)))
    }
  },
})
