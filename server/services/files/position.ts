import { eq, isNull, sql } from 'drizzle-orm'
import type { Queryable } from '../../db/connection'
import { files } from '../../db/schema'

/** The place for one more file in a folder's own order: behind the last. */
export async function nextPosition(tx: Queryable, folder: string | null): Promise<number> {
  const [row] = await tx
    .select({ last: sql<number>`coalesce(max(${files.position}), 0)::int` })
    .from(files)
    .where(folder === null ? isNull(files.folder) : eq(files.folder, folder))
  return row!.last + 1
}
