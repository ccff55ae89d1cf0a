import { chmod, cp, mkdir, readdir, rename, rm } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite'
import { readMigrationFiles } from 'drizzle-orm/migrator'
import { migrate } from 'drizzle-orm/pglite/migrator'
import { createQueue } from '../../core/queue'
import { ROOT } from '../root'
import { syncFolder } from '../store/safely'
import { syncTree } from '../store/trees'
import { asPGlite, openPGlite, type PGliteThread } from './drivers/pglite'
import { CannotOpen, TooNew } from './cannotOpen'
import * as schema from './schema'

export type Database = PgliteDatabase<typeof schema>
/** The database itself, or a transaction on it. */
export type Queryable = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>

/**
 * What a service may ask of the database it works with. A transaction sees and does what it would, had it the database
 * for itself; what it is given to do may be done again from the start, and so changes nothing but the database.
 */
export interface Connection {
  db: Database
  /** Runs something while nothing is written: what lies on disk then is what a database that lost power would start from. */
  standStill: (work: () => Promise<void>) => Promise<void>
  /** Does what no two may do at once, among all processes that have this database open: one after another. */
  alone: <T>(work: () => Promise<T>) => Promise<T>
  close: () => Promise<void>
}

/** The steps that make the tables, and bring older ones up to date. */
export const MIGRATIONS = { migrationsFolder: join(ROOT, 'server/db/migrations') }

/** Where the database lies as it was before its tables were changed last. */
export const beforeMigrationOf = (folder: string) => `${folder}-before-update`

async function standStill(client: PGliteThread, work: () => Promise<void>): Promise<void> {
  // Most of what is to be written is written before the others have to wait.
  await client.exec('checkpoint')
  await client.runExclusive(work)
}

/** Moments of the steps that were taken with this database, in milliseconds since the epoch; none for a new one. */
async function stepsTaken(client: PGliteThread): Promise<number[]> {
  const {
    rows: [there],
  } = await client.query("select to_regclass('drizzle.__drizzle_migrations') as name")
  if (!(there as { name: string | null }).name) return []
  const { rows } = await client.query('select created_at from drizzle.__drizzle_migrations')
  return (rows as { created_at: string }[]).map(row => Number(row.created_at))
}

/** Copies the database beside itself, whole or not at all. */
async function keepCopy(client: PGliteThread, folder: string): Promise<void> {
  const [copy, draft] = [beforeMigrationOf(folder), `${beforeMigrationOf(folder)}.new`]
  await rm(draft, { recursive: true, force: true })
  await standStill(client, () => cp(folder, draft, { recursive: true, preserveTimestamps: true, mode: 0 }))
  await rm(copy, { recursive: true, force: true })
  await rename(draft, copy)
  await syncFolder(dirname(copy))
}

/** @throws TooNew where a newer Trough has changed the tables in a way this one does not know */
async function bringUpToDate(client: PGliteThread, db: Database, folder: string, steps: typeof MIGRATIONS): Promise<void> {
  const taken = await stepsTaken(client)
  const newest = Math.max(...readMigrationFiles(steps).map(step => step.folderMillis))
  if (Math.max(0, ...taken) > newest) {
    throw new TooNew(
      `The data folder ${dirname(folder)} was last used by a newer Trough, and this one would damage it. Start the newer one, or go back to how it was before: npm run trough repair before-update, or a backup: npm run trough restore FOLDER.`,
    )
  }
  if (taken.length && Math.max(...taken) < newest) await keepCopy(client, folder)
  await migrate(db, steps)
}

async function openClient(folder: string, onTouched: (touched: string) => void): Promise<PGliteThread> {
  const there = await readdir(folder)
  const missing = there.length ? ['PG_VERSION', 'global', 'pg_wal', 'base'].filter(name => !there.includes(name)) : []
  const helps =
    'Put a backup in its place (npm run trough restore FOLDER), or go back to the copy made before the last update where there is one (npm run trough repair).'
  if (missing.length) throw new CannotOpen(`The database in ${folder} is not whole: ${missing.join(', ')} missing. ${helps}`)
  return openPGlite(folder, onTouched).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'EACCES' || error.code === 'EROFS' || error.code === 'EPERM') {
      throw new CannotOpen(
        `The database in ${folder} cannot be written. Give the user Trough runs as the right to write there, or mount that disk for writing.`,
      )
    }
    throw new CannotOpen(`The database in ${folder} does not open: ${error.message} ${helps}`, { cause: error })
  })
}

/**
 * Opens the database in a folder, which is made if missing, and brings its tables up to date; before they are changed,
 * a copy is kept beside it.
 *
 * @param onTouched is told what each change touched, after its commit
 * @param steps where the steps lie that bring its tables up to date
 * @throws CannotOpen with a message for the console
 */
export async function openDatabase(
  folder: string,
  onTouched: (touched: string) => void = () => undefined,
  steps = MIGRATIONS,
): Promise<Connection> {
  await mkdir(folder, { recursive: true, mode: 0o700 })
  await chmod(folder, 0o700)
  const isNew = (await readdir(folder)).length === 0
  const client = await openClient(folder, onTouched)
  const db = drizzle(asPGlite(client), { schema })
  try {
    await bringUpToDate(client, db, folder, steps)
    if (isNew) {
      // What makes a database anew does not sync what it writes.
      await standStill(client, () => syncTree(folder))
    }
  } catch (error) {
    await client.close()
    throw error
  }
  // The folder is this process's alone.
  return { db, standStill: work => standStill(client, work), alone: createQueue(), close: () => client.close() }
}
