import { eq } from 'drizzle-orm'
import type { ZodType } from 'zod'
import type { Database, Queryable } from '../db/connection'
import { settings } from '../db/schema'

/** A short list of the site's that is read and written whole; who changes it while another does waits for that. */
export function settingsList<Item>(db: Database, key: string, schema: ZodType<Item[]>) {
  async function read(q: Queryable = db): Promise<Item[]> {
    const [row] = await q.select().from(settings).where(eq(settings.key, key))
    return row ? schema.parse(row.value) : []
  }
  return {
    read,

    /** Makes the list anew out of what it is now; gives what `make` gave. */
    change: <Given>(make: (items: Item[], tx: Queryable) => Promise<{ items: Item[]; given: Given }>): Promise<Given> =>
      db.transaction(async tx => {
        // Without a row there is nothing to lock.
        await tx.insert(settings).values({ key, value: [] }).onConflictDoNothing()
        await tx.select({ key: settings.key }).from(settings).where(eq(settings.key, key)).for('update')
        const { items, given } = await make(await read(tx), tx)
        await tx
          .update(settings)
          .set({ value: schema.parse(items) })
          .where(eq(settings.key, key))
        return given
      }),
  }
}
