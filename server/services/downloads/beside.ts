import { and, eq, gte, lte, sql } from 'drizzle-orm'
import type { Occasion } from '../../../core/tally/occasions'
import type { Narrowing } from '../../../core/tally/columns'
import type { Listed } from '../../../core/tally/particulars'
import type { SpanFound } from '../../../core/tally/span'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { dailyCounts, pages, uses } from '../../db/schema'

export type Days = Pick<SpanFound, 'firstDay' | 'lastDay'>

/** What is counted beside downloads holds for all who came: where downloads are narrowed to some of them, it says nothing. */
const SAID_OF: ReadonlySet<string> = new Set<Listed>(['file', 'page', 'placement'])

/** What is known of a row besides how often it was taken. */
export interface Beside {
  /** how often the page was seen, or what is in the file looked at */
  seen?: number
  /** how often robots took the file */
  robots?: number
  /** how often it was taken as part of a bundle */
  bundled?: number
}

/** Says how often pages were seen, files looked at, and what robots took. */
export function createBeside(db: Database) {
  async function totals(what: Occasion, { firstDay, lastDay }: Days, ids?: string[]): Promise<Map<string, number>> {
    const rows = await db
      .select({ of: dailyCounts.of, count: sql<number>`sum(${dailyCounts.count})::int` })
      .from(dailyCounts)
      .where(
        and(eq(dailyCounts.what, what), gte(dailyCounts.day, firstDay), lte(dailyCounts.day, lastDay), ids && among(dailyCounts.of, ids)),
      )
      .groupBy(dailyCounts.of)
    return new Map(rows.map(({ of, count }) => [of, count]))
  }
  const sumOf = (counts: ReadonlyMap<string, number>) => [...counts.values()].reduce((sum, count) => sum + count, 0)

  /** How often the pages were seen on which buttons and links stand live; those of head and foot stand on all. */
  async function ofPlacements(placements: string[], days: Days): Promise<Map<string, Beside>> {
    const places = await db
      .selectDistinct({ placement: uses.placement, page: uses.pageId, edge: pages.edge })
      .from(uses)
      .innerJoin(pages, eq(pages.id, uses.pageId))
      .where(and(among(uses.placement, placements), eq(uses.side, 'live')))
    const seen = await totals('seen', days)
    return new Map(
      places.map(({ placement, page, edge }) => [placement, { seen: edge && edge !== 'entry' ? sumOf(seen) : (seen.get(page) ?? 0) }]),
    )
  }

  return {
    /** By each key of a list; empty where nothing can be said. */
    async of(dimension: Listed, keys: string[], narrow: Narrowing, days: Days): Promise<Map<string, Beside>> {
      const ids = keys.filter(Boolean)
      if (!ids.length || Object.keys(narrow).some(each => !SAID_OF.has(each))) return new Map()
      if (dimension === 'placement') return ofPlacements(ids, days)
      if (dimension === 'page') return new Map([...(await totals('seen', days, ids))].map(([id, seen]) => [id, { seen }]))
      if (dimension !== 'file') return new Map()
      const [looked, robots] = [await totals('looked', days, ids), await totals('robot', days, ids)]
      const bundled = await totals('bundled', days, ids)
      return new Map(ids.map(id => [id, { seen: looked.get(id), robots: robots.get(id), bundled: bundled.get(id) }]))
    },
  }
}
