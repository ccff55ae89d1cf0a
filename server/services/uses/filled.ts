import { eq } from 'drizzle-orm'
import { fillPictures, mapFillPictures } from '../../../core/look/fillPictures'
import type { Queryable } from '../../db/connection'
import { looks } from '../../db/schema'

/** The saved looks that are filled with pictures of the library, one entry for each picture. */
export async function filledLooks(db: Queryable): Promise<{ fileId: string, lookId: string, name: string }[]> {
  const rows = await db.select({ lookId: looks.id, name: looks.name, appearance: looks.appearance }).from(looks)
  return rows.flatMap(({ appearance, ...look }) => fillPictures(appearance).map(fileId => ({ ...look, fileId })))
}

/** Gives looks that are filled with a picture another one, or none, in the caller's transaction. */
export async function refillLooks(tx: Queryable, from: string, to: string | undefined): Promise<void> {
  for (const { id, appearance } of await tx.select().from(looks)) {
    if (!fillPictures(appearance).includes(from)) continue
    await tx.update(looks).set({ appearance: mapFillPictures(appearance, file => file === from ? to : file) }).where(eq(looks.id, id))
  }
}
