import { asc, eq, inArray, or, sql, type SQL } from 'drizzle-orm'
import type { Use } from '../../../core/files/fileItem'
import type { Target } from '../../../core/page/schema'
import type { Queryable } from '../../db/connection'
import { pages, signposts, uses } from '../../db/schema'
import { filledLooks } from './filled'
import { leadsTo } from './recording'

/** The pages a file is shown with where they are linked to elsewhere. */
async function sharedWith(db: Queryable, fileIds: string[]): Promise<Use[]> {
  const rows = await db.select({ fileId: pages.picture, pageId: pages.id, pageTitle: pages.title, live: pages.live }).from(pages).where(inArray(pages.picture, fileIds)).orderBy(asc(pages.title))
  return rows.map(({ live, ...row }) => ({ ...row, folderId: null, placement: `shared-${row.pageId}`, kind: 'picture', label: 'with links to this page', section: '', by: null, draft: true, live: live !== null }))
}

/** The looks that are filled with a file: what wears them shows it at once. */
async function worn(db: Queryable, fileIds: string[]): Promise<Use[]> {
  return (await filledLooks(db)).filter(({ fileId }) => fileIds.includes(fileId)).map(({ fileId, lookId, name }) => ({
    fileId, folderId: null, pageId: null, pageTitle: 'Looks', placement: `look-${lookId}`, kind: 'look', label: name, section: '', by: null, draft: true, live: true,
  }))
}

/** The signposts that point at a file: their addresses may be anywhere. */
async function pointing(db: Queryable, fileIds: string[]): Promise<Use[]> {
  const rows = await db.select().from(signposts).where(inArray(signposts.fileId, fileIds)).orderBy(asc(signposts.title))
  return rows.map(({ id, title, fileId }) => ({ fileId, folderId: null, pageId: null, pageTitle: 'Signposts', placement: `signpost-${id}`, kind: 'signpost', label: title, section: '', by: null, draft: true, live: true }))
}

/** What stands on pages and leans on something, drafts and live pages merged by placement. */
async function placed(db: Queryable, where: SQL | undefined): Promise<Use[]> {
  const rows = await db.select({
    fileId: sql<string | null>`coalesce(${uses.fileId}, ${signposts.fileId})`, folderId: uses.folderId, pageId: pages.id, pageTitle: pages.title,
    placement: uses.placement, kind: uses.kind, label: uses.label, section: sql<string>`coalesce(${uses.section}, '')`, by: signposts.title, side: uses.side,
  }).from(uses).innerJoin(pages, eq(pages.id, uses.pageId)).leftJoin(signposts, eq(signposts.id, uses.signpostId)).where(where).orderBy(asc(pages.title), asc(uses.label), asc(uses.side))
  const merged = new Map<string, Use>()
  for (const { side, ...row } of rows) {
    const key = `${row.pageId} ${row.placement} ${row.fileId ?? row.folderId}`
    const known = merged.get(key)
    merged.set(key, { ...known ?? row, draft: side === 'draft' || !!known?.draft, live: side === 'live' || !!known?.live })
  }
  return [...merged.values()]
}

/** Where files and folders are used, straight or by a signpost. */
export async function usesOf(db: Queryable, fileIds: string[], folderIds: string[] = []): Promise<Use[]> {
  const straight = fileIds.length || folderIds.length ? await placed(db, or(inArray(uses.fileId, fileIds), inArray(uses.folderId, folderIds))) : []
  if (!fileIds.length) return straight
  // Asked by themselves: few files have one, and the index on the files serves each question.
  const bySignpost = await placed(db, inArray(signposts.fileId, fileIds))
  return [...straight, ...bySignpost, ...await pointing(db, fileIds), ...await sharedWith(db, fileIds), ...await worn(db, fileIds)]
}

/** Everything that leads to a target, or shows it. */
export const usesOfTarget = (db: Queryable, target: Target): Promise<Use[]> => target.kind === 'file' ? usesOf(db, [target.id]) : placed(db, leadsTo(target))
