import { eq } from 'drizzle-orm'
import type { Queryable } from '../../db/connection'
import { bundles } from '../../db/schema'

export type BundleRow = typeof bundles.$inferSelect

export async function rowOf(tx: Queryable, id: string): Promise<BundleRow | undefined> {
  return (await tx.select().from(bundles).where(eq(bundles.fileId, id)))[0]
}
