import { constants } from 'node:fs'
import { chmod, copyFile, mkdir, readFile, readdir, rename, rm } from 'node:fs/promises'
import { dirname, join, resolve } from 'node:path'
import { z } from 'zod'
import { isDiskFull } from '../../../core/diskFull'
import { Problem } from '../../../core/problem'
import type { Connection } from '../../db/connection'
import { blobs } from '../../db/schema'
import { readSecrets, withFresh, writeSecrets } from '../../secrets'
import { localStore, type LocalStore } from '../../store/local'
import { syncFolder, writeSafely } from '../../store/safely'
import { forEach } from '../../store/trees'
import type { Store } from '../../store/store'
import { createQueue } from '../../../core/queue'
import type { LibraryService } from '../library/library'
import type { Traffic } from '../traffic'
import type { Hashing } from './hashing'
import { copyTree, makeSafe, namesBelow, removeTree } from './treeWork'

/** The list of what a backup is: written last, so that what is on disk before it counts for nothing. */
const LIST = 'trough-backup.json'

const listSchema = z.object({
  version: z.literal(1),
  /** ISO 8601 */
  made: z.string(),
  /** the folder of the database's copy */
  db: z.string().regex(/^db-\d+$/),
  /** SHA-256 of every blob, and their bytes */
  blobs: z.array(z.tuple([z.string().regex(/^[0-9a-f]{64}$/), z.number().int().min(0)])),
})
type List = z.infer<typeof listSchema>

export interface BackupReport {
  /** ISO 8601 */
  made: string
  blobs: number
  /** blobs that were not there yet */
  copied: number
  /** bytes copied */
  bytes: number
  /** blobs that are missing or damaged here: the backup keeps its own copy where it has one */
  unfit: string[]
}

async function readList(folder: string): Promise<List | undefined> {
  const text = await readFile(join(folder, LIST), 'utf8').catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT' || error.code === 'ENOTDIR') return undefined
    throw error
  })
  return text === undefined ? undefined : listSchema.parse(JSON.parse(text))
}

async function mustHaveList(folder: string): Promise<List> {
  const list = await readList(folder).catch((error: unknown) => {
    throw new Problem(422, `The list of the backup in ${folder} cannot be read.`, 'Take another copy of the backup.', {
      cause: String(error),
    })
  })
  if (!list) throw new Problem(422, `There is no backup in ${folder}.`, `Name the folder that holds ${LIST}.`)
  return list
}

/** Copies bytes from one store to another; gives whether they were there, and whole: damaged bytes would only look like a copy. */
async function copyBlob(from: Store, to: LocalStore, sha256: string, hashing: Hashing): Promise<boolean> {
  const path = `${to.pathOf(sha256)}.coming`
  await mkdir(dirname(path), { recursive: true })
  const there = await from
    .withFile(sha256, source => copyFile(source, path, constants.COPYFILE_FICLONE))
    .then(
      () => true,
      (error: NodeJS.ErrnoException) => {
        if (error.code === 'ENOENT') return false
        throw error
      },
    )
  if (there && (await hashing.one(path)) === sha256) {
    await to.adopt(sha256, path)
    return true
  }
  await rm(path, { force: true })
  return false
}

/** Reads backups that were made before. */
export function createBackupReader(hashing: Hashing) {
  return {
    /** @throws Problem 422 where a folder is no backup */
    async check(folder: string): Promise<void> {
      await mustHaveList(resolve(folder))
    },

    /** Fetches bytes into a store; gives whether the backup has them whole. */
    fetch: (folder: string, sha256: string, store: LocalStore): Promise<boolean> =>
      copyBlob(localStore(join(resolve(folder), 'store')), store, sha256, hashing),
  }
}
export type BackupReader = ReturnType<typeof createBackupReader>

interface Needs {
  connection: Pick<Connection, 'db' | 'standStill'>
  /** the data folder */
  folder: string
  store: Store
  hashing: Hashing
  library: Pick<LibraryService, 'holdBytes'>
  traffic: Pick<Traffic, 'comes'>
}

/** Copies everything that cannot be made again into a folder, while visitors come and go. */
export function createBackups({ connection: { db, standStill }, folder: data, store, hashing, library, traffic }: Needs) {
  const oneAtATime = createQueue()
  const visitorsCome = () => traffic.comes

  async function copyBlobs(
    target: LocalStore,
    there: ReadonlySet<string>,
    rows: List['blobs'],
  ): Promise<Pick<BackupReport, 'copied' | 'bytes' | 'unfit'>> {
    const report = { copied: 0, bytes: 0, unfit: [] as string[] }
    await forEach(
      rows.filter(([sha256]) => !there.has(sha256)),
      async ([sha256, size]) => {
        if (!(await copyBlob(store, target, sha256, hashing))) {
          report.unfit.push(sha256)
          return
        }
        report.copied++
        report.bytes += size
      },
      visitorsCome,
    )
    return report
  }

  /** @param there names in the target before this run */
  async function clear(folder: string, target: LocalStore, there: ReadonlySet<string>, { db: current, blobs: rows }: List): Promise<void> {
    for (const name of await readdir(folder)) if (/^db-\d+$/.test(name) && name !== current) await removeTree(join(folder, name))
    const known = new Set(rows.map(([sha256]) => sha256))
    for (const name of there) {
      if (known.has(name)) continue
      // Left over from a run that was cut short, or no longer needed.
      if (/^[0-9a-f]{64}$/.test(name)) await target.remove(name)
      else await rm(target.pathOf(name.slice(0, 64)) + name.slice(64), { force: true })
    }
  }

  async function backUp(folder: string): Promise<BackupReport> {
    await mkdir(folder, { recursive: true, mode: 0o700 })
    const old = await readList(folder)
    if (!old && (await readdir(folder)).some(name => !/^(?:db-\d+|store|secrets\.json(?:\.new)?|trough-backup\.json\.new)$/.test(name))) {
      throw new Problem(422, `${folder} holds other things.`, 'Name an empty folder, or one with an earlier backup.')
    }
    const number = old ? Number(old.db.slice(3)) + 1 : 1
    const copy = join(folder, `db-${number}`)
    await removeTree(copy)
    const release = await library.holdBytes()
    try {
      await standStill(() => copyTree({ from: join(data, 'db'), to: copy, earlier: old && join(folder, old.db) }))
      await makeSafe(copy)
      // Whatever the copy refers to is among these, since nothing is collected meanwhile.
      const rows = (await db.select({ sha256: blobs.sha256, size: blobs.size }).from(blobs)).map(({ sha256, size }): [string, number] => [
        sha256,
        size,
      ])
      const target = localStore(join(folder, 'store'))
      await mkdir(join(folder, 'store/sha256'), { recursive: true })
      const there = await namesBelow(join(folder, 'store/sha256'))
      const report = await copyBlobs(target, there, rows)
      await writeSafely(join(folder, 'secrets.json'), await readFile(join(data, 'secrets.json'), 'utf8'), 0o600)
      const list: List = { version: 1, made: new Date().toISOString(), db: `db-${number}`, blobs: rows }
      await writeSafely(join(folder, LIST), JSON.stringify(list))
      await clear(folder, target, there, list)
      return { made: list.made, blobs: rows.length, ...report }
    } finally {
      release()
    }
  }

  return {
    /**
     * Makes a backup, or brings one up to date.
     *
     * @throws Problem 422 where the folder holds something else, or lies in the data folder
     */
    make: (folder: string): Promise<BackupReport> =>
      oneAtATime(async () => {
        const path = resolve(folder)
        if (path === data || path.startsWith(`${data}/`))
          throw new Problem(422, 'A backup inside the data folder would be lost with it.', 'Name a folder elsewhere, best on another disk.')
        try {
          return await backUp(path)
        } catch (error) {
          if (isDiskFull(error))
            throw new Problem(
              507,
              'The disk with the backup is full.',
              'Free some space there, then back up again. The backup that was there before still holds.',
            )
          throw error
        }
      }),
  }
}
export type Backups = ReturnType<typeof createBackups>

/**
 * Makes a data folder of a backup; every byte is checked on its way, and what is damaged is left out and named.
 *
 * @throws Problem where the folder is no backup, or the target is not empty
 */
export async function restoreBackup(
  from: string,
  to: string,
  hashing: Hashing,
): Promise<{
  made: string
  blobs: number
  /** everybody has to sign in anew */ newSecrets: boolean
  /** SHA-256 of what is missing or damaged in the backup */ lost: string[]
}> {
  const [folder, data] = [resolve(from), resolve(to)]
  const list = await mustHaveList(folder)
  const there = await readdir(data).catch(() => [])
  if (there.length)
    throw new Problem(409, `${data} is not empty.`, 'Name a new folder, or empty that one: a backup is never put over something else.')
  const draft = `${data}.restoring`
  await rm(draft, { recursive: true, force: true })
  const source = localStore(join(folder, 'store'))
  const target = localStore(join(draft, 'store'))
  await mkdir(join(draft, 'incoming'), { recursive: true })
  await copyTree({ from: join(folder, list.db), to: join(draft, 'db') })
  await makeSafe(join(draft, 'db'))
  const lost: string[] = []
  await forEach(list.blobs, async ([sha256]) => {
    if (!(await copyBlob(source, target, sha256, hashing))) lost.push(sha256)
  })
  // What cannot be read of them costs the sessions, and no file.
  const secrets = await readSecrets(folder).catch(() => ({}))
  await writeSecrets(draft, withFresh(secrets))
  await chmod(draft, 0o700)
  await rm(data, { recursive: true, force: true })
  await rename(draft, data)
  await syncFolder(dirname(data))
  return { made: list.made, blobs: list.blobs.length - lost.length, newSecrets: Object.keys(secrets).length < 3, lost }
}
