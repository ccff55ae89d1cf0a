import { execFile } from 'node:child_process'
import { constants } from 'node:fs'
import { access } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { eq, inArray, sql } from 'drizzle-orm'
import { CAGE, PROGRAMS, drawnByOffice, hasStills, type ProgramName, type Programs } from '../../../core/files/programs'
import type { Database } from '../../db/connection'
import { blobs, editions, settings } from '../../db/schema'

const KEY = 'programs'

const cageWorks = (cage: string): Promise<boolean> =>
  promisify(execFile)(cage, [...CAGE, '--unshare-all', '--', '/bin/true']).then(
    () => true,
    () => false,
  )

/** The programs that lie in some folders, the first of each. */
export async function findPrograms(folders: string[]): Promise<Programs> {
  const found: Programs = {}
  for (const [name, { command }] of Object.entries(PROGRAMS) as [ProgramName, { command: string }][])
    for (const folder of folders) {
      const path = join(folder, command)
      const runs = await access(path, constants.X_OK).then(
        () => true,
        () => false,
      )
      if (runs && !found[name]) found[name] = path
    }
  // Where the machine lets nobody make one, a cage would keep the others from working at all.
  if (found.cage && !(await cageWorks(found.cage))) delete found.cage
  return found
}

/** Has what a program that is new here can do more with read once more; files that came before are not left behind. */
export async function readAnewWith(db: Database, { office, film }: Programs): Promise<void> {
  const now = { office: !!office, film: !!film }
  await db.transaction(async tx => {
    await tx.insert(settings).values({ key: KEY, value: {} }).onConflictDoNothing()
    const [row] = await tx.select().from(settings).where(eq(settings.key, KEY)).for('update')
    const before = row!.value as Partial<typeof now>
    const [newOffice, newFilm] = [now.office && !before.office, now.film && !before.film]
    await tx.update(settings).set({ value: now }).where(eq(settings.key, KEY))
    if (!newOffice && !newFilm) return
    const types = (await tx.selectDistinct({ mediaType: editions.mediaType }).from(editions))
      .map(({ mediaType }) => mediaType)
      .filter(type => (newOffice && drawnByOffice(type)) || (newFilm && hasStills(type)))
    if (!types.length) return
    await tx
      .update(blobs)
      .set({ reading: 'waiting', readingError: null })
      .where(inArray(blobs.sha256, sql`(select ${editions.sha256} from ${editions} where ${inArray(editions.mediaType, types)})`))
  })
}
