import { and, eq, sql } from 'drizzle-orm'
import type { PageText } from '../../../core/page/changes'
import { Problem, notFound } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { pageVersions, pages } from '../../db/schema'

/** A page as its row has it. */
export type PageRow = typeof pages.$inferSelect

/** A page's draft is not what is live. */
export const differs = sql<boolean>`${pages.liveRevision} is distinct from ${pages.revision}`

/** @throws Problem 404 */
export async function rowOf(q: Queryable, id: string): Promise<PageRow> {
  const [row] = await q.select().from(pages).where(eq(pages.id, id))
  if (!row) throw notFound('page')
  return row
}

/** The same of what is a page of its own. @throws Problem 404, 409 for what stands on every page */
export async function pageRowOf(q: Queryable, id: string): Promise<PageRow> {
  const row = await rowOf(q, id)
  if (row.edge) throw new Problem(409, `“${row.title}” is no page of its own: it stands on each of them.`, 'Change what is on it instead.')
  return row
}

export async function versionOf(q: Queryable, id: string, number: number): Promise<PageText | undefined> {
  const [row] = await q
    .select({ title: pageVersions.title, document: pageVersions.document })
    .from(pageVersions)
    .where(and(eq(pageVersions.pageId, id), eq(pageVersions.number, number)))
  return row
}
