import { setImmediate as nextTurn } from 'node:timers/promises'
import { sql } from 'drizzle-orm'
import { wordsOf } from '../../../core/find/fold'
import type { Connection, Database } from '../../db/connection'
import type { DamagedPage, PagesMessage, PagesTask } from '../../workers/databasePages'
import { createWorkerHost, workerScript } from '../workerHost'

const PATIENCE = 60_000

/**
 * Pages of the database that are not as they were written. They are read past the database, which gives up where it meets
 * one; what it was just writing is looked at once more while it stands still.
 */
async function damagedPages(folder: string, standStill: Connection['standStill']): Promise<DamagedPage[]> {
  const host = createWorkerHost<PagesTask, PagesMessage>(workerScript('databasePages'), PATIENCE)
  const look = async (again?: DamagedPage[]): Promise<DamagedPage[]> => {
    let damaged: DamagedPage[] = []
    await host.run({ folder, again }, message => {
      if ('damaged' in message) damaged = message.damaged
      return 'damaged' in message
    })
    return damaged
  }
  try {
    let damaged = await look()
    if (damaged.length) await standStill(async () => void (damaged = await look(damaged)))
    return damaged
  } finally {
    await host.close()
  }
}

/** Parts of documents looked at between two turns of others. */
const PARTS = 100

/** Lets parts of documents be found by the words that stand in them again; gives how many were not. */
async function mendWords(db: Database, goesOn: () => boolean): Promise<number> {
  let mended = 0
  let last = { sha256: '', number: 0 }
  for (;;) {
    const { rows } = await db.execute<{ sha256: string; number: number; body: string; words: string[] }>(sql`
      select sha256, number, body, tsvector_to_array(words) as words from texts where (sha256, number) > (${last.sha256}, ${last.number}) order by sha256, number limit ${PARTS}`)
    if (!rows.length || !goesOn()) return mended
    for (const { sha256, number, body, words } of rows) {
      const meant = new Set(wordsOf(body))
      if (words.length !== meant.size || words.some(word => !meant.has(word))) {
        await db.execute(
          sql`update texts set words = array_to_tsvector(${sql.param([...meant])}::text[]) where sha256 = ${sha256} and number = ${number} and body = ${body}`,
        )
        mended++
      }
      await nextTurn()
    }
    last = rows.at(-1)!
  }
}

/**
 * What is wrong with the database itself, a sentence each: every page is held against its checksum, then tables and
 * indexes against their own rules (PostgreSQL, amcheck), then rows against what they belong to, and the words that
 * documents are found by against those that stand in them.
 *
 * @param folder of the database
 */
export async function verifyDatabase(
  { db, standStill }: Pick<Connection, 'db' | 'standStill'>,
  folder: string,
  goesOn: () => boolean,
): Promise<string[]> {
  const damaged = await damagedPages(folder, standStill)
  // To ask for such a page would end the database.
  if (damaged.length) return damaged.slice(0, 20).map(({ file, page }) => `Page ${page} of db/${file} is damaged.`)
  const found: string[] = []
  await db.execute(sql`create extension if not exists amcheck`)
  const { rows: tables } = await db.execute<{ name: string }>(sql`
    select c.oid::regclass::text as name from pg_class c join pg_namespace n on n.oid = c.relnamespace where c.relkind = 'r' and n.nspname = 'public' order by 1`)
  for (const { name } of tables) {
    if (!goesOn()) return found
    // Every row is read through, and held against the rules of its page (PostgreSQL, amcheck).
    const { rows } = await db.execute<{ block: number; msg: string }>(sql`select blkno as block, msg from verify_heapam(${name}::regclass)`)
    if (rows.length) found.push(`The table “${name}” is damaged in block ${rows[0]!.block}: ${rows[0]!.msg}.`)
    await nextTurn()
  }
  const { rows: indexes } = await db.execute<{ name: string }>(sql`
    select c.oid::regclass::text as name from pg_class c join pg_namespace n on n.oid = c.relnamespace join pg_am a on a.oid = c.relam
    where c.relkind = 'i' and n.nspname = 'public' and a.amname = 'btree' order by 1`)
  for (const { name } of indexes) {
    if (!goesOn()) return found
    await db.execute(sql`select bt_index_check(${name}::regclass, true)`).catch((error: Error) => {
      found.push(`The index “${name}” is damaged: ${(error.cause as Error | undefined)?.message ?? error.message}.`)
    })
    await nextTurn()
  }
  const {
    rows: [lost],
  } = await db.execute<{ count: number }>(sql`
    select count(*)::int as count from texts t left join blobs b using (sha256) where b.sha256 is null or b.reading = 'waiting' and b.created < now() - interval '1 day'`)
  if (lost!.count) found.push(`Words of ${lost!.count} parts of documents belong to no document that was read.`)
  const mended = await mendWords(db, goesOn)
  if (mended)
    found.push(
      mended === 1
        ? 'One part of a document was not found by the words in it; now it is.'
        : `${mended} parts of documents were not found by the words in them; now they are.`,
    )
  const {
    rows: [astray],
  } = await db.execute<{ count: number }>(sql`
    select count(*)::int as count from files f where not exists (select 1 from editions e where e.file_id = f.id and e.number = f.edition) and not exists (select 1 from bundles b where b.file_id = f.id)`)
  if (astray!.count) found.push(`${astray!.count} files have no current edition.`)
  return found
}
