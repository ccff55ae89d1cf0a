import { join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'
import { log } from '../log'
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

/**
 * Ends the process where the database gave up, as it does when it cannot write its log any more (PostgreSQL, severity
 * PANIC): all that asks it afterwards would wait for ever. What it has acknowledged is there again after the next start.
 */
function endWith(client: PGlite): void {
  const watched = <Message extends unknown[], Answer>(execute: (...message: Message) => Promise<Answer>) => async (...message: Message): Promise<Answer> => {
    try {
      return await execute.apply(client, message)
    }
    catch (error) {
      if ((error as { severity?: string }).severity !== 'PANIC') throw error
      log.fatal({ err: error }, 'the database cannot go on; see that the disk has room, and start Trough again')
      process.exit(1)
    }
  }
  client.execProtocol = watched(client.execProtocol)
  client.execProtocolStream = watched(client.execProtocolStream)
}

/** Opens PGlite in a folder, which is made if missing, and brings its tables up to date. */
export async function openDatabase(folder: string): Promise<Connection> {
  const client = await PGlite.create(folder)
  endWith(client)
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
