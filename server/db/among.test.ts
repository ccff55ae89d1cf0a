import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { blobs, editions, files, retiredHandles } from './schema'
import { openTestTrough, type TestTrough } from '../testing/harness'
import { among } from './among'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

// PostgreSQL's protocol counts parameters in 16 bits (Bind, message formats): a list of more cannot be asked for.
const MANY = 66_000
const ids = Array.from({ length: MANY }, (_, number) => `many${number}`)

it('asks for any number of texts', async () => {
  const { database } = test.trough
  const found = async (texts: Iterable<string>) =>
    (await database.execute<{ found: boolean }>(sql`select ${among(sql`'many65999'`, texts)} as found`)).rows[0]!.found
  expect(await found(ids)).toBe(true)
  expect(await found(new Set(['many6599', 'it\'s {odd}, "too"']))).toBe(false)
  expect(await found([])).toBe(false)
})

it('lets more files than that have values be deleted for good at once', async () => {
  const { database, library } = test.trough
  const sha256 = '0'.repeat(64)
  await database.insert(blobs).values({ sha256, size: 1, crc32: 0, reading: 'done' })
  await database.execute(sql`insert into ${files} (id, title, handle, edition, deleted)
    select 'many' || n, 'Many ' || n, 'many-' || n, 1, now() from generate_series(1, ${sql.raw(String(MANY / 2))}) n`)
  await database.execute(sql`insert into ${editions} (file_id, number, sha256, file_name, media_type)
    select id, 1, ${sha256}, handle, 'text/plain' from ${files} where id like 'many%'`)
  expect(await library.emptyBin(ids)).toBe(MANY / 2)
  const gone = await database.execute<{ count: number }>(sql`select count(*)::int as count from ${retiredHandles} where file_id is null`)
  expect(gone.rows[0]!.count).toBe(MANY / 2)
})
