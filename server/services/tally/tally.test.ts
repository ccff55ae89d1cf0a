import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { eq, type SQL } from 'drizzle-orm'
import { PgDialect } from 'drizzle-orm/pg-core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { NO_PARTICULARS } from '../../../core/tally/particulars'
import type { Database } from '../../db/connection'
import { downloads, transfers } from '../../db/schema'
import { databaseOfTest, openTestTrough, type TestTrough } from '../../testing/harness'
import { createTallyService } from './tally'
import { createWho } from './who'

/** Where nothing else is counted. */
const SILENT = { note: () => undefined }

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const seen = (file: string, visitor = 7) => ({
  file,
  etag: '"e"',
  at: Date.now(),
  edition: 1,
  placement: 'aaaaaaaaaa',
  size: 10,
  delivered: [{ start: 0, end: 10 }],
  address: `192.0.2.${visitor}`,
  userAgent: 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
})

it('writes a thousand downloads, each once', async () => {
  const file = await test.put('counted.pdf', '%PDF-1.7 counted')
  for (let count = 0; count < 1000; count++) test.trough.tally.observe(seen(file.id, count))
  await Promise.all([test.trough.tally.flush(), test.trough.tally.flush()])
  expect((await test.trough.library.get(file.id)).downloads).toBe(1000)
})

it('keeps what could not be written for the next time', async () => {
  let full = true
  const written: unknown[] = []
  const tx = {
    execute: async (query: SQL) => {
      const { sql } = new PgDialect().sqlToQuery(query)
      if (full) throw new Error('no space left on device')
      if (sql.startsWith('insert')) written.push(sql)
    },
    // Nobody else is told.
    select: () => ({ from: () => ({ where: async () => [] }) }),
  }
  const db = {
    transaction: (work: (tx: unknown) => Promise<void>) => work(tx),
    delete: () => ({ where: async () => undefined }),
    select: () => ({ from: () => ({ orderBy: async () => [] }) }),
  } as unknown as Database
  const tally = createTallyService(db, createWho('secret'), SILENT)
  tally.observe(seen('f'))
  await expect(tally.flush()).rejects.toThrow('no space left')
  full = false
  await tally.flush()
  await tally.flush()
  expect(written).toHaveLength(1)
})

it('goes on after a restart with downloads that were under way', async () => {
  const file = await test.put('resumed.pdf', '%PDF-1.7 resumed')
  const folder = await mkdtemp(join(tmpdir(), 'trough-tally-'))
  const { db, close } = await (await databaseOfTest(folder))(join(folder, 'db'), () => undefined)
  const part = (start: number, end: number) => ({ ...seen(file.id), delivered: [{ start, end }] })
  const before = createTallyService(db, createWho('secret'), SILENT)
  before.observe(part(0, 6))
  await before.flush()
  // Nothing of it names the visitor.
  expect(JSON.stringify(await db.select().from(transfers))).not.toMatch(/192\.0\.2\.7|Firefox/)
  const after = createTallyService(db, createWho('secret'), SILENT)
  after.observe(part(6, 10))
  await after.flush()
  expect([await db.select().from(transfers), (await db.select().from(downloads)).map(row => [row.fileId, row.bytes])]).toEqual([
    [],
    [[file.id, 10]],
  ])
  await close()
})

it('counts what could not be told of when it came, once it can be', async () => {
  const file = await test.put('later.pdf', '%PDF-1.7 later')
  let broken = true
  const tally = createTallyService(test.trough.database, createWho('secret'), SILENT, async requests => {
    if (broken) throw new Error('no connection')
    return requests.map(() => ({ ...NO_PARTICULARS, campaign: 'told' }))
  })
  tally.observe(seen(file.id))
  await expect(tally.flush()).rejects.toThrow('no connection')
  broken = false
  await tally.flush()
  await tally.flush()
  const rows = await test.trough.database.select().from(downloads).where(eq(downloads.fileId, file.id))
  expect(rows.map(({ count, campaign }) => [count, campaign])).toEqual([[1, 'told']])
})
