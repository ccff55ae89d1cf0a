import { desc, eq, lt, sql } from 'drizzle-orm'
import { firstFree } from '../../../core/files/handle'
import { CLOSED_GATE } from '../../../core/gate/gate'
import type { BinnedPage } from '../../../core/page/pageItem'
import { Problem, notFound } from '../../../core/problem'
import type { Database } from '../../db/connection'
import { binnedPages, files, gates, pageVersions, pages, retiredSlugs } from '../../db/schema'
import { recordUses } from '../uses/recording'
import { pageRowOf, versionOf } from './pageRows'
import { refuseWhileLed } from './refuseWhileLed'

/**
 * Pages go to the bin and come back as they were. A page in the bin is none for anybody else: it lies there as one row, with its versions
 * and the addresses it had.
 */
export function createPageBin(db: Database) {
  return {
    /**
     * Puts a page in the bin, with its draft and its live versions.
     *
     * @throws Problem 409 with the places in `uses` where other pages lead to it and `despite` is not set
     */
    async remove(id: string, { despite = false } = {}): Promise<void> {
      await db.transaction(async tx => {
        // Of two who remove it the second finds it gone.
        await tx.select({ id: pages.id }).from(pages).where(eq(pages.id, id)).for('update')
        const page = await pageRowOf(tx, id)
        if (page.slug === '') throw new Problem(409, 'The home page stays.', 'Change what is on it instead.')
        await refuseWhileLed(tx, id, despite)
        // By the database alone: versions may be many and long.
        await tx.execute(sql`insert into ${binnedPages} (id, slug, title, live, kept)
          select id, slug, title, live is not null, jsonb_build_object(
            'page', to_jsonb(p),
            'versions', (select jsonb_agg(v) from ${pageVersions} as v where v.page_id = p.id),
            'slugs', (select jsonb_agg(r.slug) from ${retiredSlugs} as r where r.page_id = p.id))
          from ${pages} as p where id = ${id}`)
        await tx.delete(pages).where(eq(pages.id, id))
      })
    },

    /** What lies in the bin, the latest first. */
    async binned(): Promise<BinnedPage[]> {
      const { id, title, slug, live, deleted } = binnedPages
      const rows = await db.select({ id, title, slug, live, deleted }).from(binnedPages).orderBy(desc(deleted))
      return rows.map(row => ({ ...row, deleted: row.deleted.toISOString() }))
    },

    /**
     * Takes a page out of the bin: live where it was, at its address, or beside it where that is taken. Gives where it is, and whether the
     * gate it stood behind is gone, so that nobody passes.
     */
    async restore(id: string): Promise<{ id: string; slug: string; gateGone: boolean }> {
      return db.transaction(async tx => {
        const gate = sql<string | null>`${binnedPages.kept} -> 'page' ->> 'gate'`
        const [row] = await tx.select({ slug: binnedPages.slug, gate }).from(binnedPages).where(eq(binnedPages.id, id)).for('update')
        if (!row) throw notFound('page')
        const taken = new Set((await tx.select({ slug: pages.slug }).from(pages)).map(page => page.slug))
        const slug = firstFree(row.slug, candidate => taken.has(candidate))
        await tx.delete(retiredSlugs).where(eq(retiredSlugs.slug, slug))
        // Whole rows, so that no column can be forgotten. Where its gate is gone, nobody passes.
        await tx.execute(sql`insert into ${pages}
          select p.* from ${binnedPages} as b, jsonb_populate_record(null::pages, b.kept -> 'page' || jsonb_build_object(
            'slug', ${slug}::text,
            'picture', (select f.id from ${files} as f where f.id = b.kept -> 'page' ->> 'picture'),
            'gate', case when b.kept -> 'page' ->> 'gate' is null then null
              else coalesce((select g.id from ${gates} as g where g.id = b.kept -> 'page' ->> 'gate'), ${CLOSED_GATE}) end)) as p
          where b.id = ${id}`)
        // One that was put in the bin by an earlier Trough does not say who put it live.
        await tx.execute(sql`insert into ${pageVersions}
          select v.* from ${binnedPages} as b, jsonb_array_elements(b.kept -> 'versions') as version,
            jsonb_populate_record(null::page_versions, '{"by": ""}' || version) as v
          where b.id = ${id} and jsonb_typeof(b.kept -> 'versions') = 'array'`)
        await tx.execute(sql`insert into ${retiredSlugs} (slug, page_id)
          select former, b.id from ${binnedPages} as b, jsonb_array_elements_text(b.kept -> 'slugs') as former
          where b.id = ${id} and jsonb_typeof(b.kept -> 'slugs') = 'array' and not exists (select 1 from ${pages} where slug = former)
          on conflict do nothing`)
        const page = await pageRowOf(tx, id)
        await recordUses(tx, id, 'draft', page.draft)
        const live = page.live === null ? undefined : await versionOf(tx, id, page.live)
        if (live) await recordUses(tx, id, 'live', live.document)
        await tx.delete(binnedPages).where(eq(binnedPages.id, id))
        return { id, slug, gateGone: page.gate !== row.gate }
      })
    },

    /** Deletes a page of the bin for good. */
    async removeForGood(id: string): Promise<void> {
      const gone = await db.delete(binnedPages).where(eq(binnedPages.id, id)).returning({ id: binnedPages.id })
      if (!gone.length) throw notFound('page')
    },

    /** What is in the bin since before a moment goes for good. */
    async emptyOldBin(before: Date): Promise<void> {
      await db.delete(binnedPages).where(lt(binnedPages.deleted, before))
    },
  }
}
