import { and, eq, isNotNull, isNull } from 'drizzle-orm'
import type { Database } from '../../db/connection'
import { pages, retiredSlugs } from '../../db/schema'
import type { Events } from '../events'
import { kept } from '../kept'

/** Where pages are live, or were before they moved: in memory, so that asking for what is nowhere costs no more than a page. */
export function createKnownSlugs(db: Database, events: Events) {
  const places = kept(async (): Promise<Map<string, string>> => {
    const live = await db
      .select({ slug: pages.slug })
      .from(pages)
      .where(and(isNotNull(pages.live), isNull(pages.edge)))
    const moved = await db
      .select({ former: retiredSlugs.slug, slug: pages.slug })
      .from(retiredSlugs)
      .innerJoin(pages, eq(pages.id, retiredSlugs.pageId))
      .where(isNotNull(pages.live))
    return new Map([
      ...moved.map(({ former, slug }): [string, string] => [former, slug]),
      ...live.map(({ slug }): [string, string] => [slug, slug]),
    ])
  })
  events.on('live', places.forget)

  return {
    /** Where the page is that is live at a slug, or was there before it moved; undefined where none is or was. */
    find: async (slug: string): Promise<string | undefined> => (await places.get()).get(slug),
  }
}
