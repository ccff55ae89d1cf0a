import { inArray } from 'drizzle-orm'
import { filesOfOwn, type OwnTypeface } from '../../../core/look/ownTypeface'
import { Problem } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { fontFiles } from '../../db/schema'

/**
 * Holds a style against the fonts that are there.
 *
 * @throws Problem 422 where one that it names is not
 */
export async function checkFonts(db: Queryable, own: OwnTypeface[]): Promise<void> {
  const names = [...new Set(filesOfOwn(own))]
  if (!names.length) return
  const there = await db.select({ name: fontFiles.name }).from(fontFiles).where(inArray(fontFiles.name, names))
  if (there.length < names.length)
    throw new Problem(422, 'A typeface of this style is no longer there.', 'Take its font from the library once more.')
}
