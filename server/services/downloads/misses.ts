import { and, desc, eq, gte, lt, lte, sql } from 'drizzle-orm'
import type { Misses, Occasion } from '../../../core/tally/occasions'
import type { Stretch } from '../../../core/tally/columns'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { dailyCounts, downloads, files, gates, pages } from '../../db/schema'
import type { Days } from './beside'

/** Rows of each kind: the rest matters less. */
const MOST = 100

interface Detailed {
  key: string
  count: number
  details: { key: string; count: number }[]
}

/** What visitors wanted and did not get: what broke off, stood behind gates, was not there, was not found, or failed. */
export function createMisses(db: Database) {
  async function of(what: Occasion, { firstDay, lastDay }: Days): Promise<Detailed[]> {
    const total = sql<number>`sum(${dailyCounts.count})::int`
    const during = and(eq(dailyCounts.what, what), gte(dailyCounts.day, firstDay), lte(dailyCounts.day, lastDay))
    const most = await db
      .select({ key: dailyCounts.of, count: total })
      .from(dailyCounts)
      .where(during)
      .groupBy(dailyCounts.of)
      .orderBy(desc(total), dailyCounts.of)
      .limit(MOST)
    if (!most.length) return []
    const rows = await db
      .select({ of: dailyCounts.of, key: dailyCounts.detail, count: total })
      .from(dailyCounts)
      .where(
        and(
          during,
          among(
            dailyCounts.of,
            most.map(({ key }) => key),
          ),
        ),
      )
      .groupBy(dailyCounts.of, dailyCounts.detail)
      .orderBy(desc(total))
    const details = new Map(most.map(({ key }) => [key, [] as Detailed['details']]))
    for (const { of: whose, key, count } of rows) details.get(whose)!.push({ key, count })
    return most.map(row => ({ ...row, details: details.get(row.key)! }))
  }

  async function taken(ids: string[], { from, to }: Stretch): Promise<Map<string, number>> {
    const rows = await db
      .select({ id: downloads.fileId, count: sql<number>`sum(${downloads.count})::int` })
      .from(downloads)
      .where(and(among(downloads.fileId, ids), gte(downloads.at, new Date(from * 1000)), lt(downloads.at, new Date(to * 1000))))
      .groupBy(downloads.fileId)
    return new Map(rows.map(({ id, count }) => [id, count]))
  }

  async function names(fileIds: string[], gateIds: string[]): Promise<Misses['names']> {
    const found = await db.select({ id: files.id, title: files.title }).from(files).where(among(files.id, fileIds))
    const onPages = await db.select({ id: pages.id, title: pages.title }).from(pages).where(among(pages.id, fileIds))
    const behind = await db.select({ id: gates.id, title: gates.name }).from(gates).where(among(gates.id, gateIds))
    const at = (folder: string) => (row: { id: string; title: string }) => [
      row.id,
      { title: row.title, place: `/desk/${folder}/${row.id}` },
    ]
    return Object.fromEntries([
      ...found.map(at('files')),
      ...onPages.map(at('pages')),
      ...behind.map(({ id, title }) => [id, { title, place: null }]),
    ]) as Misses['names']
  }

  return async (span: Days & Stretch): Promise<Misses> => {
    const [broken, stopped] = [await of('broken', span), await of('stopped', span)]
    const [missing, unfound, failed] = [await of('missing', span), await of('unfound', span), await of('failed', span)]
    const ids = [...broken, ...stopped].map(({ key }) => key)
    const gateIds = stopped.flatMap(({ details }) => details.map(({ key }) => key))
    const had = await taken(ids, span)
    const plain = ({ key, count }: Detailed) => ({ key, count })
    return {
      broken: broken.map(row => {
        const tenths = new Array<number>(10).fill(0)
        for (const { key, count } of row.details) tenths[Number(key)]! += count
        return { ...plain(row), tenths }
      }),
      stopped: stopped.map(row => ({ ...plain(row), taken: had.get(row.key) ?? 0, gates: row.details.map(({ key }) => key) })),
      missing: missing.map(row => ({ ...plain(row), from: row.details.slice(0, 5) })),
      unfound: unfound.map(plain),
      failed: failed.map(plain),
      names: await names(ids, gateIds),
    }
  }
}
