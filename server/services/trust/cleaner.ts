import { and, eq, inArray, isNotNull, lt, sql, type SQL } from 'drizzle-orm'
import { cleaningSchema, type Cleaning, type Freed } from '../../../core/trust/trustReports'
import { outdatedEditions, type EditionFacts } from '../../../core/trust/cleaning'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { blobs, editions, files, settings } from '../../db/schema'
import type { Store } from '../../store/store'
import type { LibraryService } from '../library/library'

const KEY = 'cleaning'
const DAY = 24 * 60 * 60 * 1000
/** What was set aside may still be looked at this long. */
const ASIDE_DAYS = 30

/** Cleans away what its owner no longer wants: the old bin, earlier editions, and bytes nothing needs. */
export function createCleaner(
  db: Database,
  store: Store,
  library: Pick<LibraryService, 'emptyOldBin' | 'emptyBin' | 'collectBytes'>,
  /** forget what was put in bins before a moment */
  bins: ((before: Date) => Promise<unknown>)[],
  now: () => number = Date.now,
) {
  async function rules(): Promise<Cleaning> {
    const [row] = await db.select().from(settings).where(eq(settings.key, KEY))
    return cleaningSchema.parse(row?.value ?? {})
  }

  async function outdated(tx: Queryable, cleaning: Cleaning): Promise<EditionFacts[]> {
    if (cleaning.keepEditions === null) return []
    const rows = await tx
      .select({
        file: editions.fileId,
        number: editions.number,
        created: editions.created,
        pinned: editions.pinned,
        currentNumber: files.edition,
      })
      .from(editions)
      .innerJoin(files, eq(files.id, editions.fileId))
      .where(sql`exists (select 1 from ${editions} as other where other.file_id = ${files.id} and other.number > 1)`)
    return outdatedEditions(
      rows.map(row => ({ ...row, created: row.created.getTime(), current: row.number === row.currentNumber })),
      cleaning,
      now(),
    )
  }

  const inBinSince = (cleaning: Cleaning) => new Date(now() - cleaning.binDays * DAY)

  async function dropEditions(cleaning: Cleaning): Promise<void> {
    await db.transaction(async tx => {
      const old = await outdated(tx, cleaning)
      for (const { file, number } of old) await tx.delete(editions).where(and(eq(editions.fileId, file), eq(editions.number, number)))
    })
  }

  const binned = async (which: SQL | undefined): Promise<string[]> =>
    (
      await db
        .select({ id: files.id })
        .from(files)
        .where(and(isNotNull(files.deleted), which))
    ).map(row => row.id)

  /** What is freed where some editions go, and some files with all of theirs. */
  async function frees(old: EditionFacts[], goneFiles: string[]): Promise<Freed> {
    const going = new Set(old.map(({ file, number }) => `${file} ${number}`))
    const gone = new Set(goneFiles)
    const fileIds = [...new Set([...old.map(edition => edition.file), ...gone])]
    if (!fileIds.length) return { editions: 0, binned: 0, bytes: 0 }
    // Bytes are freed where every edition that has them goes.
    const hashes = db.select({ sha256: editions.sha256 }).from(editions).where(among(editions.fileId, fileIds))
    const rows = await db
      .select({ sha256: editions.sha256, file: editions.fileId, number: editions.number, size: blobs.size })
      .from(editions)
      .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
      .where(inArray(editions.sha256, hashes))
    const staying = new Set(rows.filter(({ file, number }) => !gone.has(file) && !going.has(`${file} ${number}`)).map(row => row.sha256))
    const freed = new Map(rows.filter(row => !staying.has(row.sha256)).map(row => [row.sha256, row.size]))
    return {
      editions: old.filter(({ file }) => !gone.has(file)).length,
      binned: gone.size,
      bytes: [...freed.values()].reduce((sum, size) => sum + size, 0),
    }
  }

  return {
    rules,

    async setRules(cleaning: Cleaning): Promise<Cleaning> {
      await db
        .insert(settings)
        .values({ key: KEY, value: cleaning })
        .onConflictDoUpdate({ target: settings.key, set: { value: cleaning } })
      return cleaning
    },

    /** What cleaning by some rules would free now. */
    async preview(cleaning: Cleaning): Promise<Freed> {
      return frees(await outdated(db, cleaning), await binned(lt(files.deleted, inBinSince(cleaning))))
    },

    /** What deleting files of the bin for good would free; all of it, where none are named. */
    async wouldFree(fileIds: string[] | null): Promise<Freed> {
      return frees([], await binned(fileIds === null ? undefined : among(files.id, fileIds)))
    },

    /** Deletes files of the bin for good, and their bytes where nothing else has them; all of it, where none are named. */
    async emptyBin(fileIds: string[] | null): Promise<Freed> {
      const freed = await this.wouldFree(fileIds)
      await library.emptyBin(fileIds)
      await library.collectBytes()
      return freed
    },

    /** Cleans by the rules that are set. */
    async clean(): Promise<void> {
      const cleaning = await rules()
      await library.emptyOldBin(inBinSince(cleaning))
      for (const forget of bins) await forget(inBinSince(cleaning))
      await dropEditions(cleaning)
      await library.collectBytes()
      await store.emptySetAside(new Date(now() - ASIDE_DAYS * DAY))
    },
  }
}
export type Cleaner = ReturnType<typeof createCleaner>
