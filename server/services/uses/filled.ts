import { fillPictures } from '../../../core/look/fillPictures'
import type { Queryable } from '../../db/connection'
import { looks } from '../../db/schema'

/** The saved looks that are filled with pictures of the library, one entry for each picture. */
export async function filledLooks(db: Queryable): Promise<{ fileId: string; lookId: string; name: string }[]> {
  const rows = await db.select({ lookId: looks.id, name: looks.name, appearance: looks.appearance }).from(looks)
  return rows.flatMap(({ appearance, ...look }) => fillPictures(appearance).map(fileId => ({ ...look, fileId })))
}
