import { and, eq, isNotNull, isNull } from 'drizzle-orm'
import type { Database } from '../../db/connection'
import { pages, retiredSlugs } from '../../db/schema'
import type { Events } from '../events'
import type { Wanted } from '../gates/guard'
import { kept } from '../kept'

/** Where a page is live, and what has to be known to say who may have it. */
export interface LivePlace extends Wanted {
  slug: string
}

/** Where pages are live, or were before they moved: in memory, so that asking for what is nowhere costs no more than a page. */
export function createKnownSlugs(db: Database, events: Events) {
  const places = kept(async (): Promise<Map<string, LivePlace>> => {
    const place = { id: pages.id, slug: pages.slug, gate: pages.gate }
    const live = await db
      .select(place)
      .from(pages)
      .where(and(isNotNull(pages.live), isNull(pages.edge)))
    const moved = await db
      .select({ former: retiredSlugs.slug, ...place })
      .from(retiredSlugs)
      .innerJoin(pages, eq(pages.id, retiredSlugs.pageId))
      .where(isNotNull(pages.live))
    return new Map([
      ...moved.map(({ former, ...at }): [string, LivePlace] => [former, { ...at, folder: null }]),
      ...live.map((at): [string, LivePlace] => [at.slug, { ...at, folder: null }]),
    ])
  })
  events.on('live', places.forget)

  return {
    /** Where the page is that is live at a slug, or was there before it moved; undefined where none is or was. */
    find: async (slug: string): Promise<LivePlace | undefined> => (await places.get()).get(slug),

    /** The same without a turn of the loop; undefined where nobody asked since something changed, too. */
    known: (slug: string): LivePlace | undefined => places.now()?.get(slug),

    /** Whether no page is there, nor was, as far as that is known without a turn of the loop. */
    isNowhere: (slug: string): boolean => places.now()?.has(slug) === false,
  }
}
