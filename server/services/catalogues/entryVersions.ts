import { and, desc, eq, isNotNull, isNull } from 'drizzle-orm'
import type { Queryable } from '../../db/connection'
import { entries, entryVersions } from '../../db/schema'

/** Entries of a catalogue that visitors see, with when they first did (ISO 8601), the newest first. */
export async function firstSeen(q: Queryable, catalogueId: string, most: number): Promise<{ id: string; published: string }[]> {
  const rows = await q
    .select({ id: entries.id, published: entryVersions.published })
    .from(entryVersions)
    .innerJoin(entries, and(eq(entries.id, entryVersions.entryId), isNull(entries.deleted), isNotNull(entries.live)))
    .where(and(eq(entryVersions.number, 1), eq(entries.catalogueId, catalogueId)))
    .orderBy(desc(entryVersions.published), desc(entries.place))
    .limit(most)
  return rows.map(({ id, published }) => ({ id, published: published.toISOString() }))
}
