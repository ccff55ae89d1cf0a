import { getTableColumns, sql, type InferInsertModel } from 'drizzle-orm'
import type { PgTable } from 'drizzle-orm/pg-core'
import type { Queryable } from './connection'

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
  const json = JSON.stringify(
    rows.map(row => Object.fromEntries(named.map(([key, name]) => [name, (row as Record<string, unknown>)[key]]))),
  )
  await tx.execute(sql`insert into ${table} select * from jsonb_populate_recordset(null::${table}, ${json}::jsonb)`)
}
