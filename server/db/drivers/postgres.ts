import { sql } from 'drizzle-orm'
import { drizzle } from 'drizzle-orm/node-postgres'
import pg from 'pg'
import { createQueue } from '../../../core/queue'
import { laterTrouble } from '../../log'
import { again } from '../again'
import type { Connection, Database } from '../connection'
import * as schema from '../schema'

/** Where a PostgreSQL server and the database on it are. */
export type PostgresAddress = Pick<pg.ClientConfig, 'host' | 'user' | 'database' | 'application_name'>

const CONNECTIONS = 4
/** Any number: the one name under which this house locks (PostgreSQL, 13.3.5, advisory locks). */
const ALONE = 5_417_204

// Counts and sizes, as PGlite gives them: none comes near what a number cannot hold.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)

/**
 * Connects to a database on a PostgreSQL server, whose tables are up to date. Transactions and single questions go
 * side by side there; all of them are serializable (PostgreSQL, 13.2.3): what they do is what they would have done one
 * after another, as on PGlite, whose one connection lets nothing else happen. One that cannot be is done again.
 *
 * @param onTouched is told what each change touched, after its commit and before whoever made it goes on
 */
export async function openPostgres(address: PostgresAddress, onTouched: (touched: string) => void): Promise<Connection> {
  const pool = new pg.Pool({
    application_name: 'trough',
    ...address,
    max: CONNECTIONS,
    options: '-c default_transaction_isolation=serializable',
    // Each hears of its own changes before it is told that they are done, and of those of others when it rests.
    onConnect: async client => {
      client.on('notification', ({ payload }) => onTouched(payload!))
      await client.query('listen touched')
    },
  })
  const guard = new pg.Pool({ ...address, max: 1 })
  for (const each of [pool, guard]) each.on('error', laterTrouble('a connection to the database was lost; the next question opens another'))
  const oneAtATime = createQueue()
  const ask = pool.query.bind(pool) as (...given: unknown[]) => Promise<never>
  Object.assign(pool, { query: (...given: unknown[]) => again(() => ask(...given)) })
  const serial = drizzle(pool, { schema })
  const transaction = serial.transaction.bind(serial)
  serial.transaction = work => again(() => transaction(work))
  // Both speak PostgreSQL's language; their types differ in what the client of each gives besides the rows.
  const db = serial as unknown as Database
  await db.execute(sql`select 1`)

  return {
    db,
    /** Holds changes back meanwhile; what is only read goes on. */
    standStill: work =>
      transaction(async tx => {
        const {
          rows: [tables],
        } = await tx.execute<{ names: string }>(
          sql`select string_agg(oid::regclass::text, ', ') as names from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace`,
        )
        await tx.execute(sql.raw(`lock table ${tables!.names} in share row exclusive mode`))
        await work()
      }),
    alone: work =>
      oneAtATime(async () => {
        const client = await guard.connect()
        try {
          await client.query('select pg_advisory_lock($1)', [ALONE])
          return await work()
        } finally {
          // The lock ends with its connection, also where that is broken.
          client.release(true)
        }
      }),
    async close() {
      await pool.end()
      await guard.end()
    },
  }
}
