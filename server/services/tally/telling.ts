import { and, eq } from 'drizzle-orm'
import { campaignOf, languageOf, NO_PARTICULARS, referredBy, type Came, type Particulars } from '../../../core/tally/particulars'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { pages, signposts, uses } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { VisitorFacts } from '../../workers/visitorFacts'
import type { Describing } from './describing'

/** A request of somebody who had something of a file. */
export interface Request {
  address: string
  userAgent: string | undefined
  placement: string | undefined
  came?: Came
}

const UNKNOWN: VisitorFacts = { country: '', device: '', browser: '', system: '' }
/** The slug that a path names, its letters as they are read; what no such path can be names none. */
function slugOf(path: string): string | undefined {
  try {
    return decodeURIComponent(path)
      .replace(/^\/+|\/+$/g, '')
      .normalize('NFC')
  } catch {
    return undefined
  }
}

/** What is known by some keys; nothing is asked where there are none. */
const known = async (
  keys: Iterable<string>,
  read: (keys: string[]) => Promise<{ key: string; id: string }[]>,
): Promise<Map<string, string>> => {
  const asked = [...new Set(keys)]
  return new Map(asked.length ? (await read(asked)).map(({ key, id }) => [key, id]) : [])
}

interface SiteFacts {
  /** under which the site answers, or once did */
  hosts: string[]
  /** it is kept where visitors are from */
  countries: boolean
  /** addresses of networks are kept, for a time */
  addresses: boolean
}

/** Says of requests where they came from and what with, several at once and off their way. */
export function createTelling(db: Database, describe: Describing['describe'], siteFacts: () => Promise<SiteFacts>) {
  async function visitorsOf(requests: readonly Request[]): Promise<VisitorFacts[]> {
    const asked = new Map<string, { address: string; userAgent: string }>()
    const keyOf = ({ address, userAgent = '' }: Request) => `${address}\n${userAgent}`
    for (const one of requests)
      if (one.came && !one.came.isPrivate) asked.set(keyOf(one), { address: one.address, userAgent: one.userAgent ?? '' })
    if (!asked.size) return requests.map(() => UNKNOWN)
    // A download counts, whatever can be said of it.
    const facts = await describe([...asked.values()]).catch((error: unknown) => {
      laterTrouble('it could not be told where visitors are from')(error)
      return []
    })
    const found = new Map([...asked.keys()].map((key, place) => [key, facts[place]]))
    return requests.map(one => found.get(keyOf(one)) ?? UNKNOWN)
  }

  const readers = {
    pages: (slugs: string[]) => db.select({ key: pages.slug, id: pages.id }).from(pages).where(among(pages.slug, slugs)),
    placements: (placements: string[]) =>
      db
        .selectDistinct({ key: uses.placement, id: uses.pageId })
        .from(uses)
        .where(and(among(uses.placement, placements), eq(uses.side, 'live'))),
    signposts: (names: string[]) =>
      db.select({ key: signposts.name, id: signposts.id }).from(signposts).where(among(signposts.name, names)),
  }

  return async (requests: readonly Request[]): Promise<Particulars[]> => {
    if (!requests.some(({ came }) => came)) return requests.map(() => NO_PARTICULARS)
    const { hosts, countries, addresses } = await siteFacts()
    const read = requests.map(({ came }) => {
      const { path, ...referred } = referredBy(came?.referer, [came?.host ?? '', ...hosts])
      return { ...referred, slug: path === undefined ? undefined : slugOf(path) }
    })
    const visitors = await visitorsOf(requests)
    const bySlug = await known(
      read.flatMap(({ slug }) => slug ?? []),
      readers.pages,
    )
    const byPlacement = await known(
      requests.flatMap(({ placement }) => placement ?? []),
      readers.placements,
    )
    const byName = await known(
      requests.flatMap(({ came }) => came?.signpost?.toLowerCase() ?? []),
      readers.signposts,
    )
    return requests.map(({ came, placement, address }, place) => {
      if (!came) return NO_PARTICULARS
      const isKnown = !came.isPrivate
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
        person: (isKnown && came.person) || '',
        link: (isKnown && came.link) || '',
        address: isKnown && addresses ? address : '',
      }
    })
  }
}
export type Telling = ReturnType<typeof createTelling>
