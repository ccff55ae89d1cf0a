import { asc, eq } from 'drizzle-orm'
import type { StoreFinding, VerifyState } from '../../../core/trust/trustReports'
import { Problem } from '../../../core/problem'
import type { Connection } from '../../db/connection'
import { blobs, editions, files, settings } from '../../db/schema'
import type { LocalStore } from '../../store/local'
import type { LibraryService } from '../library/library'
import type { BackupReader } from './backup'
import { verifyDatabase } from './verifyDatabase'
import type { Hashed, Hashing } from './hashing'
import type { Troubles } from './troubles'
import { log } from '../../log'

const KEY = 'verify'
/** Blobs handed to the hashing worker at once; a stop waits for these. */
const BATCH = 64

const NEVER: VerifyState = { state: 'never', done: 0, total: 0, bytes: 0, started: null, finished: null, error: null, findings: [] }

interface Needs {
  connection: Pick<Connection, 'db' | 'standStill'>
  databaseFolder: string
  store: LocalStore
  hashing: Hashing
  library: Pick<LibraryService, 'setStraysAside'>
  backups: BackupReader
  troubles: Troubles
}

/** Reads every stored byte again and holds it against its SHA-256; mends what it can. */
export function createVerifying({ connection, databaseFolder, store, hashing, library, backups, troubles }: Needs) {
  const { db } = connection
  let state: VerifyState | undefined
  let running: Promise<void> | undefined
  let stopping = false

  async function filesOf(sha256: string): Promise<StoreFinding['files']> {
    return db
      .select({ id: files.id, title: files.title, edition: editions.number })
      .from(editions)
      .innerJoin(files, eq(files.id, editions.fileId))
      .where(eq(editions.sha256, sha256))
      .orderBy(asc(files.title), asc(editions.number))
  }

  async function mend(sha256: string, from: string | undefined): Promise<StoreFinding['mended']> {
    return from !== undefined && (await backups.fetch(from, sha256, store)) ? 'fetched from the backup' : null
  }

  async function look({ sha256, found }: Hashed, size: number, from: string | undefined): Promise<void> {
    if (found === sha256) return troubles.clear(sha256)
    // Never sent again, and in nobody's way: the same bytes uploaded once more take their place.
    if (found !== null) await store.setAside(sha256)
    const kind = found === null ? 'missing' : 'damaged'
    await troubles.note(sha256, kind)
    const mended = await mend(sha256, from)
    if (mended) await troubles.clear(sha256)
    state!.findings.push({ kind, sha256, size, files: await filesOf(sha256), mended })
  }

  async function verify(from: string | undefined): Promise<void> {
    const rows = await db.select({ sha256: blobs.sha256, size: blobs.size }).from(blobs).orderBy(asc(blobs.sha256))
    state!.total = rows.length
    for (let start = 0; start < rows.length && !stopping; start += BATCH) {
      const batch = rows.slice(start, start + BATCH)
      const hashed: Hashed[] = []
      await store.withFiles(
        batch.map(({ sha256 }) => sha256),
        files =>
          hashing.run(files, one => {
            hashed.push(one)
            state!.done++
            state!.bytes += one.size
          }),
      )
      for (const [index, one] of hashed.entries()) await look(one, batch[index]!.size, from)
    }
    if (stopping) return
    state!.database = await verifyDatabase(connection, databaseFolder, () => !stopping)
    if (stopping) return
    for (const stray of await library.setStraysAside()) state!.findings.push({ kind: 'stray', ...stray, files: [], mended: 'set aside' })
  }

  async function run(from: string | undefined): Promise<void> {
    try {
      await verify(from)
      state!.state = stopping ? 'stopped' : 'done'
    } catch (error) {
      log.error({ err: error }, 'verifying failed')
      state!.state = 'failed'
      state!.error = (error as Error).message
    }
    state!.finished = new Date().toISOString()
    await db
      .insert(settings)
      .values({ key: KEY, value: state })
      .onConflictDoUpdate({ target: settings.key, set: { value: state } })
  }

  return {
    /** How far it is, or what it found last. */
    async state(): Promise<VerifyState> {
      if (!state) {
        const [row] = await db.select().from(settings).where(eq(settings.key, KEY))
        state ??= row ? (row.value as VerifyState) : NEVER
      }
      return state
    },

    /**
     * Begins to read everything; what it finds is in {@link state}.
     *
     * @param from a backup folder to mend from
     * @throws Problem 409 where it is under way, 422 where the folder is no backup
     */
    async start(from?: string): Promise<void> {
      if (running) throw new Problem(409, 'Verifying is under way.', 'Wait for it, or stop it.')
      if (from !== undefined) await backups.check(from)
      stopping = false
      state = { ...NEVER, state: 'running', started: new Date().toISOString(), findings: [] }
      running = run(from).finally(() => (running = undefined))
    },

    /** Resolves when what is under way has ended. */
    ended: async (): Promise<void> => running,

    async stop(): Promise<void> {
      stopping = true
      await running
    },
  }
}
export type Verifying = ReturnType<typeof createVerifying>
