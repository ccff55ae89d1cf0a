import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openTestTrough, type TestTrough } from '../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

// PostgreSQL 5.5.5, foreign keys: what refers to a row that goes is looked for row by row where no index finds it.
it('finds what refers to that which goes by thousands by an index', async () => {
  const { rows } = await test.trough.database.execute<{ column: string }>(sql`
    select refers.conrelid::regclass || '.' || attribute.attname as column
    from pg_constraint as refers
      join pg_attribute as attribute on attribute.attrelid = refers.conrelid and attribute.attnum = refers.conkey[1]
    where refers.contype = 'f' and refers.confrelid::regclass::text in ('files', 'editions', 'blobs', 'entries', 'contacts', 'guests')
      and not exists (
        select 1 from pg_index where indrelid = refers.conrelid and indkey[0] = refers.conkey[1]
          and (indpred is null or pg_get_expr(indpred, indrelid) = format('(%I IS NOT NULL)', attribute.attname))
      )
    order by 1`)
  expect(rows.map(({ column }) => column)).toEqual([])
})
