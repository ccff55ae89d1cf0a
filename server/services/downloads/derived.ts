import { eq } from 'drizzle-orm'
import type { DerivedKeys } from '../../../core/tally/columns'
import type { Derived } from '../../../core/tally/particulars'
import type { Database } from '../../db/connection'
import { bundles, files } from '../../db/schema'

/** Says of all files what downloads are told apart by besides what is written down with them, as it is now. */
export function createDerived(db: Database) {
  const readers: Record<Derived, () => Promise<{ id: string; key: string | null }[]>> = {
    inFolder: () => db.select({ id: files.id, key: files.folder }).from(files),
    bundle: () => db.select({ id: files.id, key: bundles.fileId }).from(files).innerJoin(bundles, eq(bundles.fileId, files.id)),
  }

  return async (wanted: readonly Derived[]): Promise<DerivedKeys> => {
    const found: DerivedKeys = {}
    for (const each of wanted)
      found[each] = Object.fromEntries((await readers[each]()).flatMap(({ id, key }) => (key === null ? [] : [[id, key]])))
    return found
  }
}
