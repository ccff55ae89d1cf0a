import { and, eq, inArray } from 'drizzle-orm'
import { campaignOf, languageOf, NO_PARTICULARS, referredBy, type Came, type Particulars } from '../../../core/tally/particulars'
import type { Database } from '../../db/connection'
import { pages, signposts, uses } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { VisitorFacts } from '../../workers/visitors'
import type { Describing } from './describing'

/** A request of somebody who had something of a file. */
export interface Request {
  address: string
  userAgent: string | undefined
  placement: string | undefined
  came?: Came
}

const UNKNOWN: VisitorFacts = { country: '', device: '', browser: '', system: '' }
const slugOf = (path: string) => path.replace(/^\/+|\/+$/g, '')

interface SiteFacts {
  /** under which the site answers, or once did */
  hosts: string[]
  /** it is kept where visitors are from */
  countries: boolean
}

/** Says of requests where they came from and what with, several at once and off their way. */
export function createTelling(db: Database, describe: Describing['describe'], siteFacts: () => Promise<SiteFacts>) {
  async function visitorsOf(requests: readonly Request[]): Promise<VisitorFacts[]> {
    const known = new Map<string, { address: string; userAgent: string }>()
    const keyOf = ({ address, userAgent = '' }: Request) => `${address}\n${userAgent}`
    for (const one of requests)
      if (one.came && !one.came.isPrivate) known.set(keyOf(one), { address: one.address, userAgent: one.userAgent ?? '' })
    if (!known.size) return requests.map(() => UNKNOWN)
    // A download counts, whatever can be said of it.
    const facts = await describe([...known.values()]).catch((error: unknown) => {
      laterTrouble('it could not be told where visitors are from')(error)
      return []
    })
    const found = new Map([...known.keys()].map((key, place) => [key, facts[place]]))
    return requests.map(one => found.get(keyOf(one)) ?? UNKNOWN)
  }

  async function pagesOf(slugs: Set<string>): Promise<Map<string, string>> {
    if (!slugs.size) return new Map()
    const rows = await db
      .select({ id: pages.id, slug: pages.slug })
      .from(pages)
      .where(inArray(pages.slug, [...slugs]))
    return new Map(rows.map(({ id, slug }) => [slug, id]))
  }

  async function pagesOfPlacements(placements: Set<string>): Promise<Map<string, string>> {
    if (!placements.size) return new Map()
    const rows = await db
      .selectDistinct({ placement: uses.placement, page: uses.pageId })
      .from(uses)
      .where(and(inArray(uses.placement, [...placements]), eq(uses.side, 'live')))
    return new Map(rows.map(({ placement, page }) => [placement, page]))
  }

  async function signpostsOf(names: Set<string>): Promise<Map<string, string>> {
    if (!names.size) return new Map()
    const rows = await db
      .select({ id: signposts.id, name: signposts.name })
      .from(signposts)
      .where(inArray(signposts.name, [...names]))
    return new Map(rows.map(({ id, name }) => [name, id]))
  }

  return async (requests: readonly Request[]): Promise<Particulars[]> => {
    if (!requests.some(({ came }) => came)) return requests.map(() => NO_PARTICULARS)
    const { hosts, countries } = await siteFacts()
    const read = requests.map(({ came }) => {
      const { path, ...referred } = referredBy(came?.referer, [came?.host ?? '', ...hosts])
      return { ...referred, slug: path === undefined ? undefined : slugOf(path) }
    })
    const visitors = await visitorsOf(requests)
    const bySlug = await pagesOf(new Set(read.flatMap(({ slug }) => slug ?? [])))
    const byPlacement = await pagesOfPlacements(new Set(requests.flatMap(({ placement }) => placement ?? [])))
    const byName = await signpostsOf(new Set(requests.flatMap(({ came }) => came?.signpost?.toLowerCase() ?? [])))
    return requests.map(({ came, placement }, place) => {
      if (!came) return NO_PARTICULARS
      const { slug, referrer, referrerPath } = read[place]!
      return {
        page: (slug === undefined ? undefined : bySlug.get(slug)) ?? byPlacement.get(placement ?? '') ?? '',
        signpost: byName.get(came.signpost?.toLowerCase() ?? '') ?? '',
        campaign: campaignOf(came.campaign),
        referrer,
        referrerPath,
        ...visitors[place]!,
        ...(!countries && { country: '' }),
        language: languageOf(came.accepted),
      }
    })
  }
}
export type Telling = ReturnType<typeof createTelling>
