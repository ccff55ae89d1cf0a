import { sql } from 'drizzle-orm'
import type { Arrivals, Uptake } from '../../../core/walk/facts'
import type { Database } from '../../db/connection'
import { dailyCounts, downloads, pageVersions, uses } from '../../db/schema'

const DAY = 86_400_000

/** What is known of how buttons are used and files arrive. */
export function createUptake(db: Database) {
  const daysAgo = (days: number) => new Date(Date.now() - days * DAY).toISOString()

  return {
    /**
     * How often placements were used before and since their page went live anew, where that is more than a week and less than two months
     * ago: before, nobody can tell.
     */
    async ofPlacements(placements: string[]): Promise<Map<string, Uptake>> {
      const { rows } = await db.execute<{ placement: string; day: string; before: number; since: number }>(sql`
        with live as (select distinct placement, page_id from ${uses} where side = 'live' and placement = any(${sql.param(placements)}::text[])),
          anew as (select page_id, max(published) as at from ${pageVersions} where page_id in (select page_id from live)
            group by page_id having count(*) > 1)
        select live.placement, to_char(anew.at at time zone 'UTC', 'YYYY-MM-DD') as day,
          coalesce(sum(taken.count) filter (where taken.at < anew.at), 0)::int as before,
          coalesce(sum(taken.count) filter (where taken.at >= anew.at), 0)::int as since
        from live join anew on anew.page_id = live.page_id
          join ${downloads} taken on taken.placement = live.placement and taken.at >= anew.at - interval '28 days'
        where anew.at between ${daysAgo(60)}::timestamptz and ${daysAgo(7)}::timestamptz
        group by live.placement, anew.at`)
      return new Map(rows.map(({ placement, ...known }) => [placement, known]))
    },

    /** How many downloads of files broke off in the last four weeks, and how many arrived. */
    async ofFiles(ids: string[]): Promise<Map<string, Arrivals>> {
      const { rows } = await db.execute<{ id: string; broken: number; taken: number }>(sql`
        select broken.id, broken.many as broken,
          (select coalesce(sum(count), 0)::int from ${downloads} where file_id = broken.id and at >= ${daysAgo(28)}::timestamptz) as taken
        from (select of_what as id, sum(count)::int as many from ${dailyCounts}
          where what = 'broken' and of_what = any(${sql.param(ids)}::text[]) and day >= ${daysAgo(28)}::date group by of_what) as broken`)
      return new Map(rows.map(({ id, broken, taken }) => [id, { broken, taken }]))
    },
  }
}
