import { and, asc, eq, isNull } from 'drizzle-orm'
import type { Use } from '../../../core/files/fileItem'
import { among } from '../../db/among'
import { signposts } from '../../db/schema'
import type { PageService } from '../pages/pages'
import type { Rewritten } from '../pages/rewriting'
import type { Holder } from '../uses/holders'

/** The signposts that point at files: their addresses may be anywhere, and what leads there on pages follows them or goes with them. */
export const signpostHolder = (pages: PageService): Holder => ({
  async places(q, { files }) {
    if (!files.length) return {}
    const rows = await q.select().from(signposts).where(among(signposts.fileId, files)).orderBy(asc(signposts.title))
    return {
      uses: rows.map(({ id, title, fileId }): Use => ({
        fileId,
        folderId: null,
        pageId: null,
        pageTitle: 'Signposts',
        placement: `signpost-${id}`,
        kind: 'signpost',
        label: title,
        section: '',
        by: null,
        draft: true,
        live: true,
      })),
    }
  },

  async lead(tx, { files }, instead) {
    const turned = files.length
      ? await tx.select({ id: signposts.id, fileId: signposts.fileId }).from(signposts).where(among(signposts.fileId, files))
      : []
    const ids = turned.map(({ id }) => id)
    if (ids.length)
      await tx
        .update(signposts)
        .set({ fileId: instead?.id ?? null, changed: new Date() })
        .where(among(signposts.id, ids))
    const rewritten: Rewritten[] = []
    if (!instead) for (const id of ids) rewritten.push(...(await pages.retarget(tx, { kind: 'signpost', id }, 'remove')).rewritten)
    return async later => {
      for (const { id, fileId } of turned)
        await later
          .update(signposts)
          .set({ fileId })
          .where(and(eq(signposts.id, id), instead ? eq(signposts.fileId, instead.id) : isNull(signposts.fileId)))
      await pages.leadBack(later, rewritten)
    }
  },
})
