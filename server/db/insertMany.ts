import { getTableColumns, sql, type InferInsertModel } from 'drizzle-orm'
import type { PgTable } from 'drizzle-orm/pg-core'
import type { Queryable } from './connection'

/** Rows in one step: more would keep visitors waiting. */
const AT_ONCE = 500

/**
 * Puts rows into a table as one JSON text, which PostgreSQL takes apart (9.16, jsonb_populate_recordset). A parameter for each value of
 * thousands of rows would keep the thread that answers visitors.
 *
 * @param rows each with every column
 */
export async function insertMany<Table extends PgTable>(
  tx: Queryable,
  table: Table,
  rows: Required<InferInsertModel<Table>>[],
): Promise<void> {
  const named = Object.entries(getTableColumns(table)).map(([key, { name }]) => [key, name] as const)
  for (let at = 0; at < rows.length; at += AT_ONCE) {
    const some = rows.slice(at, at + AT_ONCE) as Record<string, unknown>[]
    const json = JSON.stringify(some.map(row => Object.fromEntries(named.map(([key, name]) => [name, row[key]]))))
    await tx.execute(sql`insert into ${table} select * from jsonb_populate_recordset(null::${table}, ${json}::jsonb)`)
  }
}
