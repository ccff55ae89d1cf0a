import { eq, isNotNull, sql } from 'drizzle-orm'
import { familyOf, type Family } from '../../../core/files/mediaType'
import type { StorageUse } from '../../../core/trust/trustReports'
import type { Database } from '../../db/connection'
import { blobs, editions, files } from '../../db/schema'
import type { Store } from '../../store/store'
import { readTree } from '../files/readTree'

const bytes = sql<number>`coalesce(sum(${blobs.size}), 0)::float8`
const count = sql<number>`count(*)::int`

/** Where the space goes. */
export function createStorage(db: Database, store: Pick<Store, 'free'>) {
  const ofEditions = () =>
    db
      .select({ count, bytes })
      .from(editions)
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .innerJoin(files, eq(files.id, editions.fileId))

  return async function storageUse(): Promise<StorageUse> {
    const isCurrent = sql`${editions.number} = ${files.edition}`
    const [all] = await db.select({ bytes }).from(blobs)
    const [shared] = await ofEditions()
    const [other] = await ofEditions().where(sql`not (${isCurrent})`)
    const [bin] = await ofEditions().where(sql`${isNotNull(files.deleted)} and ${isCurrent}`)
    const current = sql`${files.deleted} is null and ${isCurrent}`
    const types = await db
      .select({ mediaType: editions.mediaType, count, bytes })
      .from(editions)
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .innerJoin(files, eq(files.id, editions.fileId))
      .where(current)
      .groupBy(editions.mediaType)
    const places = await db
      .select({ folder: files.folder, count, bytes })
      .from(editions)
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .innerJoin(files, eq(files.id, editions.fileId))
      .where(current)
      .groupBy(files.folder)

    const kinds = new Map<Family, { files: number; bytes: number }>()
    for (const row of types) {
      const kind = kinds.get(familyOf(row.mediaType)) ?? { files: 0, bytes: 0 }
      kinds.set(familyOf(row.mediaType), { files: kind.files + row.count, bytes: kind.bytes + row.bytes })
    }
    const tree = await readTree(db)
    const folders = new Map<string | null, { files: number; bytes: number }>()
    for (const row of places) {
      // What lies in a folder counts for every folder above it.
      for (const folder of row.folder === null ? [null] : tree.pathTo(row.folder).map(({ id }) => id)) {
        const sum = folders.get(folder) ?? { files: 0, bytes: 0 }
        folders.set(folder, { files: sum.files + row.count, bytes: sum.bytes + row.bytes })
      }
    }
    const bySize = (a: { bytes: number }, b: { bytes: number }) => b.bytes - a.bytes
    return {
      stored: all!.bytes,
      free: await store.free(),
      unshared: shared!.bytes,
      kinds: [...kinds].map(([family, sum]) => ({ family, ...sum })).sort(bySize),
      folders: [...folders].map(([folder, sum]) => ({ folder, ...sum })).sort(bySize),
      otherEditions: { count: other!.count, bytes: other!.bytes },
      bin: { files: bin!.count, bytes: bin!.bytes },
    }
  }
}
