import { and, eq, isNotNull, sql } from 'drizzle-orm'
import type { Trouble } from '../../../core/trust/trustReports'
import type { Database } from '../../db/connection'
import { blobs } from '../../db/schema'

/** What is known to be wrong with stored bytes; said at their files, and told to all who keep such bytes in memory. */
export function createTroubles(db: Database) {
  return {
    /** They were found missing or damaged. */
    async note(sha256: string, trouble: Trouble): Promise<void> {
      await db
        .update(blobs)
        .set({ trouble })
        .where(and(eq(blobs.sha256, sha256), sql`${blobs.trouble} is distinct from ${trouble}`))
    },

    /** They are as they came in. */
    async clear(sha256: string): Promise<void> {
      await db
        .update(blobs)
        .set({ trouble: null })
        .where(and(eq(blobs.sha256, sha256), isNotNull(blobs.trouble)))
    },
  }
}
export type Troubles = ReturnType<typeof createTroubles>
