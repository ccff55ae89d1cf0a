import { eq, sql } from 'drizzle-orm'
import type { PageDocument } from '../../../core/page/schema'
import type { Queryable } from '../../db/connection'
import { pageVersions, pages } from '../../db/schema'
import { recordUses } from '../uses/recording'
import type { PageRow } from './pageRows'

/** Makes a document the live version, in the caller's transaction. @param by e-mail of who does; empty where it follows something else */
export async function goLive(tx: Queryable, page: PageRow, title: string, document: PageDocument, liveRevision: number | null, by = '') {
  const [last] = await tx
    .select({ number: sql<number>`coalesce(max(${pageVersions.number}), 0)::int` })
    .from(pageVersions)
    .where(eq(pageVersions.pageId, page.id))
  const number = last!.number + 1
  await tx.insert(pageVersions).values({ pageId: page.id, number, title, document, by })
  await tx.update(pages).set({ live: number, liveRevision }).where(eq(pages.id, page.id))
  await recordUses(tx, page.id, 'live', document)
}
