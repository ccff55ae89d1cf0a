import { asc, eq, or, sql, type SQL } from 'drizzle-orm'
import type { Use } from '../../../core/files/fileItem'
import type { Target } from '../../../core/page/schema'
import { among } from '../../db/among'
import type { Queryable } from '../../db/connection'
import { pages, signposts, uses } from '../../db/schema'
import type { LeanedOn } from './holders'
import { leadsTo } from './recording'

/** What stands on pages and leans on something, drafts and live pages merged by placement. */
async function placed(db: Queryable, where: SQL | undefined): Promise<Use[]> {
  const rows = await db
    .select({
      fileId: sql<string | null>`coalesce(${uses.fileId}, ${signposts.fileId})`,
      folderId: uses.folderId,
      pageId: pages.id,
      pageTitle: pages.title,
      placement: uses.placement,
      kind: uses.kind,
      label: uses.label,
      section: sql<string>`coalesce(${uses.section}, '')`,
      by: signposts.title,
      side: uses.side,
    })
    .from(uses)
    .innerJoin(pages, eq(pages.id, uses.pageId))
    .leftJoin(signposts, eq(signposts.id, uses.signpostId))
    .where(where)
    .orderBy(asc(pages.title), asc(uses.label), asc(uses.side))
  const merged = new Map<string, Use>()
  for (const { side, ...row } of rows) {
    const key = `${row.pageId} ${row.placement} ${row.fileId ?? row.folderId}`
    const known = merged.get(key)
    merged.set(key, { ...(known ?? row), draft: side === 'draft' || !!known?.draft, live: side === 'live' || !!known?.live })
  }
  return [...merged.values()]
}

/** What stands on pages and leans on files and folders, straight or by a signpost. */
export async function usesOnPages(db: Queryable, { files, folders }: LeanedOn): Promise<Use[]> {
  const straight = files.length || folders.length ? await placed(db, or(among(uses.fileId, files), among(uses.folderId, folders))) : []
  // Asked by themselves: few files have one, and the index on the files serves each question.
  return files.length ? [...straight, ...(await placed(db, among(signposts.fileId, files)))] : straight
}

/** What stands on pages and leads to a target, or shows it; a file by no signpost. */
export const usesOfTarget = (db: Queryable, target: Target): Promise<Use[]> => placed(db, leadsTo(target))
