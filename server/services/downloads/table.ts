import { sql } from 'drizzle-orm'
import { csvCells } from '../../../core/csvLine'
import { DIMENSIONS, type Dimension } from '../../../core/tally/particulars'
import type { Database } from '../../db/connection'
import { downloads } from '../../db/schema'
import type { createNames } from './names'
import { KEYS } from './expressions'

/** What is told by its title beside its identity. */
export const NAMED: ReadonlySet<Dimension> = new Set(['file', 'placement', 'page', 'signpost', 'person', 'link', 'source'])

/** A download as it is told. */
export interface Row {
  id: number
  /** ISO 8601 */
  at: string
  count: number
  bytes: number
  /** in the order of `DIMENSIONS` */
  keys: string[]
  path: string
  took: number
  address: string
}

type Told = [id: number, seconds: number, count: number, bytes: number, path: string, took: number, address: string, ...keys: string[]]

const toRow = ([id, seconds, count, bytes, path, took, address, ...keys]: Told): Row => ({
  id,
  at: `${new Date(seconds * 1000).toISOString().slice(0, 19)}Z`,
  count,
  bytes,
  keys,
  path,
  took,
  address,
})

/**
 * Downloads in the order of some identities, without those that were taken out since. They come as one text, without the names of what is
 * in it: taken apart field by field they take four times as long, with names twice.
 */
export async function readRows(db: Database, ids: readonly number[]): Promise<Row[]> {
  if (!ids.length) return []
  const those = db
    .select()
    .from(downloads)
    .where(sql`${downloads.id} = any(${sql.param([...ids])}::bigint[])`)
  const { rows } = await db.execute<{ rows: string | null }>(sql`select json_agg(json_build_array(
    id, floor(extract(epoch from at))::bigint, count, bytes, referrer_path, took, address, ${KEYS}))::text as rows
    from ${those} as downloads`)
  const found = new Map((JSON.parse(rows[0]?.rows ?? '[]') as Told[]).map(told => [told[0], toRow(told)]))
  return ids.flatMap(id => found.get(id) ?? [])
}

/** Titles of what stands in a long table: each is asked for once. */
export function createTitles(namesOf: ReturnType<typeof createNames>, people: boolean) {
  /** Of each dimension, what was written of its keys: the same few come again and again, and writing them anew is most of the work. */
  const written = DIMENSIONS.map(() => new Map<string, string>())
  const known = new Map<Dimension, Map<string, string>>([...NAMED].map(dimension => [dimension, new Map()]))

  return {
    /** @param rows keys of each row, in the order of `DIMENSIONS` */
    async learn(rows: readonly string[][]): Promise<void> {
      const asked = [...known].map(([dimension, titles]) => {
        const place = DIMENSIONS.indexOf(dimension)
        return [dimension, new Set(rows.flatMap(keys => (titles.has(keys[place]!) ? [] : keys[place]!)))] as const
      })
      const names = await namesOf(Object.fromEntries(asked), people)
      for (const [dimension, keys] of asked) for (const key of keys) known.get(dimension)!.set(key, names[dimension]?.[key]?.title ?? '')
    },
    /** Keys as cells of a line, with the title beside each that has one. */
    cells: (keys: readonly string[]): string =>
      DIMENSIONS.map((dimension, place) => {
        const [key, those] = [keys[place]!, written[place]!]
        let cells = those.get(key)
        if (cells === undefined) {
          const titles = known.get(dimension)
          those.set(key, (cells = csvCells(titles ? [key, titles.get(key) ?? ''] : [key])))
        }
        return cells
      }).join(','),
  }
}
