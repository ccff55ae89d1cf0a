import { nextPosition } from '../files/position'
import { and, eq, isNotNull, isNull, sql } from 'drizzle-orm'
import type { FileItem } from '../../../core/files/fileItem'
import { cleanFileName, titleFromFileName } from '../../../core/files/fileName'
import { newId } from '../../../core/id'
import { Problem } from '../../../core/problem'
import type { Connection, Queryable } from '../../db/connection'
import { blobs, editions, files } from '../../db/schema'
import { isThere } from '../../store/safely'
import type { Store } from '../../store/store'
import { ensurePath, readTree } from '../files/readTree'
import { freeHandle } from '../files/handles'
import { getFile } from '../files/items'
import { sniffType, type Sniffed } from './sniff'

/** Bytes that arrived whole, with what was computed while they came in. */
export interface Arrival {
  /** a finished file on the store's disk; taken over */
  path: string
  /** hexadecimal */
  sha256: string
  crc32: number
  size: number
  /** as the sender gave it */
  fileName: string
  /** one upload makes one file, however often it is handed in */
  uploadId?: string
  /** the folder it goes into; left out, the top of the library */
  folder?: string | null
  /** folders below that, made where they are missing */
  within?: string[]
  /** where the folder has a file of that name: become its next edition */
  asEdition?: boolean
  /** identity of the file whose next edition it is */
  editionOf?: string
  /** visitors get the earlier edition until this one is shown to them */
  waits?: boolean
  /** e-mail of who put it in */
  by?: string
  /** the gate a new file stands behind; left out, that of its folder */
  gate?: string | null
}

/** A new blob; there is nothing to be read in an empty one. */
const blobRow = (bytes: Pick<Arrival, 'sha256' | 'size' | 'crc32'>, { charset }: Sniffed): typeof blobs.$inferInsert => ({
  ...bytes,
  ...(charset && { facts: { charset } }),
  ...(bytes.size === 0 && { preview: 'none', reading: 'done' }),
})

/** Bytes that came again take the place of those that were found wrong. */
const NO_LONGER_TROUBLED = { target: blobs.sha256, set: { trouble: null }, setWhere: isNotNull(blobs.trouble) }

/** Makes files of bytes that arrived, and collects bytes that nothing refers to any more. */
export function createIntake({ db, alone }: Pick<Connection, 'db' | 'alone'>, store: Store) {
  let held = 0

  async function fileOfUpload(uploadId: string): Promise<FileItem | undefined> {
    const [edition] = await db.select({ fileId: editions.fileId }).from(editions).where(eq(editions.uploadId, uploadId))
    return edition && getFile(db, edition.fileId)
  }

  /** A file of that name in a folder, outside the bin. */
  async function namesake(tx: Queryable, folder: string | null, fileName: string): Promise<string | undefined> {
    const [row] = await tx
      .select({ id: files.id })
      .from(files)
      .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
      .where(and(isNull(files.deleted), folder === null ? isNull(files.folder) : eq(files.folder, folder), eq(editions.fileName, fileName)))
    return row?.id
  }

  /** The identity of a file, as long as it is there: what should follow one that went meanwhile is a file of its own. */
  async function outsideBin(tx: Queryable, id: string): Promise<string | undefined> {
    const [row] = await tx
      .select({ id: files.id })
      .from(files)
      .where(and(eq(files.id, id), isNull(files.deleted)))
    return row?.id
  }

  async function addEdition(
    tx: Queryable,
    fileId: string,
    edition: Omit<typeof editions.$inferInsert, 'fileId' | 'number'>,
    waits: boolean,
  ): Promise<void> {
    const [last] = await tx
      .select({ number: sql<number>`max(${editions.number})::int` })
      .from(editions)
      .where(eq(editions.fileId, fileId))
    const number = last!.number + 1
    await tx.insert(editions).values({ ...edition, fileId, number })
    if (!waits) await tx.update(files).set({ edition: number, changed: new Date() }).where(eq(files.id, fileId))
  }

  /** Puts arrived bytes into the store; what lies there and was found damaged makes room for them. */
  async function adopt(sha256: string, path: string): Promise<void> {
    const [known] = await db.select({ trouble: blobs.trouble }).from(blobs).where(eq(blobs.sha256, sha256))
    if (known?.trouble && (await isThere(path)) && (await store.has(sha256))) await store.setAside(sha256)
    await store.adopt(sha256, path)
  }

  /** After a restart the bytes may have been adopted already; the type is then read where they are. */
  const typeOf = async (path: string, sha256: string, fileName: string): Promise<Sniffed> =>
    (await store.has(sha256)) ? store.withFile(sha256, kept => sniffType(kept, fileName)) : sniffType(path, fileName)

  async function ingest({
    path,
    sha256,
    crc32,
    size,
    fileName: rawName,
    uploadId,
    folder = null,
    within = [],
    asEdition,
    editionOf,
    waits = false,
    by,
    gate = null,
  }: Arrival): Promise<FileItem> {
    const known = uploadId && (await fileOfUpload(uploadId))
    if (known) return known
    const fileName = cleanFileName(rawName)
    const sniffed = await typeOf(path, sha256, fileName)
    const { mediaType } = sniffed
    await adopt(sha256, path)

    const id = await db.transaction(async tx => {
      await tx.insert(blobs).values(blobRow({ sha256, size, crc32 }, sniffed)).onConflictDoUpdate(NO_LONGER_TROUBLED)
      // The folder may have gone to the bin while its file was on the way: nothing is lost.
      const base = folder !== null && (await readTree(tx)).get(folder) ? folder : null
      const place = await ensurePath(tx, base, within)
      const old = editionOf === undefined ? asEdition && (await namesake(tx, place, fileName)) : await outsideBin(tx, editionOf)
      if (old) {
        if ((await getFile(tx, old)).bundle) throw new Problem(422, 'A bundle has no editions.', 'Put the file into the bundle instead.')
        await addEdition(tx, old, { sha256, fileName, mediaType, uploadId, by }, waits)
        return old
      }
      const own = newId()
      await tx.insert(files).values({
        id: own,
        title: titleFromFileName(fileName).slice(0, 200),
        handle: await freeHandle(tx, fileName),
        edition: 1,
        folder: place,
        position: await nextPosition(tx, place),
        gate,
      })
      await tx.insert(editions).values({ fileId: own, number: 1, sha256, fileName, mediaType, uploadId, by })
      return own
    })
    return getFile(db, id)
  }

  async function adoptAll(
    arrivals: (Pick<Arrival, 'path' | 'sha256' | 'crc32' | 'size' | 'fileName'> & { key: string })[],
    then: (found: Map<string, { sha256: string; mediaType: string }>) => Promise<void>,
  ): Promise<void> {
    const found = new Map<string, { sha256: string; mediaType: string }>()
    for (const { key, path, sha256, crc32, size, fileName } of arrivals) {
      const sniffed = await typeOf(path, sha256, fileName)
      await adopt(sha256, path)
      await db.insert(blobs).values(blobRow({ sha256, size, crc32 }, sniffed)).onConflictDoUpdate(NO_LONGER_TROUBLED)
      found.set(key, { sha256, mediaType: sniffed.mediaType })
    }
    await then(found)
  }

  async function collectBytes(): Promise<number> {
    const orphans = await db
      .select({ sha256: blobs.sha256 })
      .from(blobs)
      .leftJoin(editions, eq(editions.sha256, blobs.sha256))
      .where(isNull(editions.sha256))
    let collected = 0
    for (const { sha256 } of orphans) {
      const gone = await db
        .delete(blobs)
        .where(and(eq(blobs.sha256, sha256), sql`not exists (select 1 from ${editions} where ${editions.sha256} = ${sha256})`))
        .returning()
      if (!gone.length) continue
      await store.remove(sha256)
      collected++
    }
    return collected
  }

  async function setStraysAside(): Promise<{ sha256: string; size: number }[]> {
    const known = new Set((await db.select({ sha256: blobs.sha256 }).from(blobs)).map(row => row.sha256))
    const strays: { sha256: string; size: number }[] = []
    for await (const sha256 of store.list()) {
      if (known.has(sha256)) continue
      const blob = await store.open(sha256)
      const size = await blob.size().finally(() => blob.close())
      await store.setAside(sha256)
      strays.push({ sha256, size })
    }
    return strays
  }

  return {
    fileOfUpload,
    // Bytes that are just arriving must not be collected as unused by the run that began before: each of these is done alone.
    /** Puts arrived bytes into the store, then makes a file, or a file's next edition, of them. */
    ingest: (arrival: Arrival): Promise<FileItem> => alone(() => ingest(arrival)),
    /** Puts many arrived bytes into the store, then has all their records made together; nothing of them is collected in between. */
    adoptAll: (...them: Parameters<typeof adoptAll>): Promise<void> => alone(() => adoptAll(...them)),
    /** Removes bytes that no edition refers to: the record first, so that none ever points at nothing. */
    collectBytes: (): Promise<number> => alone(async () => (held ? 0 : collectBytes())),
    /** Takes stored bytes out of the way that no record knows, left by a process that died between the two. */
    setStraysAside: (): Promise<{ sha256: string; size: number }[]> => alone(setStraysAside),
    /**
     * Holds collecting back, so that bytes stay that a copy of the database still refers to.
     *
     * @returns lets it go on
     */
    async holdBytes(): Promise<() => void> {
      // What is being collected just now is waited for.
      await alone(async () => held++)
      return () => held--
    },
  }
}
export type Intake = ReturnType<typeof createIntake>
