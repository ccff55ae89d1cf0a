import { sql } from 'drizzle-orm'
import { filesOfOwn, type OwnTypeface } from '../../../core/look/ownTypeface'
import { Problem } from '../../../core/problem'
import { among } from '../../db/among'
import type { Queryable } from '../../db/connection'
import { fontFiles } from '../../db/schema'

/**
 * Holds a style against the fonts that are there. They count as taken anew, so that one who clears away old ones at the same time leaves
 * them: either of the two waits for the other's rows.
 *
 * @throws Problem 422 where one that it names is not
 */
export async function keepFonts(tx: Queryable, own: OwnTypeface[]): Promise<void> {
  const names = [...new Set(filesOfOwn(own))]
  if (!names.length) return
  const there = await tx
    .update(fontFiles)
    .set({ made: sql`now()` })
    .where(among(fontFiles.name, names))
    .returning({ name: fontFiles.name })
  if (there.length < names.length)
    throw new Problem(422, 'A typeface of this style is no longer there.', 'Take its font from the library once more.')
}
