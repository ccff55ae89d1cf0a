import { writeSync } from 'node:fs'
import { sql } from 'drizzle-orm'
import { openDatabase } from '../../server/db/connection'

/** Writes to a database until it can no more, and prints the last number that was acknowledged; with `read`, prints what is in it. */
const FILLER = 'x'.repeat(20_000)

const [, , folder = '', read] = process.argv
const { db, close } = await openDatabase(folder)
if (read) {
  const { rows } = await db.execute<{ n: number }>(sql`select max(n)::int as n from filled`)
  process.stdout.write(`${rows[0]!.n}\n`)
  await close()
} else {
  await db.execute(sql`create table filled(id int primary key, n int, pad text) with (fillfactor = 30)`)
  await db.execute(sql`insert into filled select id, 0, '' from generate_series(1, 200) id`)
  for (const statement of ['vacuum filled', 'checkpoint']) await db.execute(sql.raw(statement))
  // The test fills the disk now.
  process.stdout.write('ready\n')
  await new Promise(resolve => process.stdin.once('data', resolve))
  for (let n = 1; ; n++) {
    // Half of each page is free, so that the table itself needs no more room; what fills the log soon stands nowhere else.
    await db.execute(sql`update filled set n = ${n} where id = 1`)
    await db.execute(sql`select pg_logical_emit_message(false, 'filler', ${FILLER})`)
    writeSync(1, `${n}\n`)
  }
}
