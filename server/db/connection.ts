import { join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'
import { ROOT } from '../root'
import * as schema from './schema'

export type Database = PgliteDatabase<typeof schema>
/** The database itself, or a transaction on it. */
export type Queryable = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>

export interface Connection {
  db: Database
  /** Runs something while no query does: what lies on disk then is what a database that lost power would start from. */
  standStill: (work: () => Promise<void>) => Promise<void>
  close: () => Promise<void>
}

/** Opens PGlite in a folder, which is made if missing, and brings its tables up to date. */
export async function openDatabase(folder: string): Promise<Connection> {
  const client = await PGlite.create(folder)
  const db = drizzle(client, { schema })
  await migrate(db, { migrationsFolder: join(ROOT, 'server/db/migrations') })
  return {
    db,
    async standStill(work) {
      // Most of what is to be written is written before the others have to wait.
      await client.exec('checkpoint')
      await client.runExclusive(work)
    },
    close: () => client.close(),
  }
}
