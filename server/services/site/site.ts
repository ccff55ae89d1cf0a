import { eq } from 'drizzle-orm'
import { z } from 'zod'
import { languageSchema } from '../../../core/language/languages'
import { speechOf, type Speech } from '../../../core/language/speech'
import { ownWordsSchema } from '../../../core/language/words/ownWords'
import { siteFormSchema } from '../../../core/site/siteForm'
import { timeZoneSchema } from '../../../core/timetable/timeZone'
import type { Database, Queryable } from '../../db/connection'
import { settings } from '../../db/schema'
import type { Events } from '../events'
import { kept } from '../kept'

export const siteSchema = siteFormSchema.extend({
  /** where it is left out, that of this machine */
  timeZone: timeZoneSchema.default(() => Intl.DateTimeFormat().resolvedOptions().timeZone),
  language: languageSchema.default('en'),
  see: z.boolean().default(true),
  counts: siteFormSchema.shape.counts.default('exact'),
  countries: z.boolean().default(true),
  keepAddresses: siteFormSchema.shape.keepAddresses.default(0),
  /** what it says to visitors in words of its owner */
  words: ownWordsSchema.default({}),
})
export type Site = z.infer<typeof siteSchema>
/** What is not said of it stays as it is. */
export const siteChangeSchema = siteFormSchema.partial().extend({ words: ownWordsSchema.optional() })
export type SiteChange = z.infer<typeof siteChangeSchema>

const KEY = 'site'
const FORMER_KEY = 'site-former'

const hostOf = (address: string): string | undefined => (address ? new URL(address).host : undefined)

/** The site's name and public address. */
export function createSiteService(db: Database, events: Events, addressFromEnvironment: string) {
  async function read(q: Queryable = db): Promise<Site> {
    const [saved] = await q.select().from(settings).where(eq(settings.key, KEY))
    return siteSchema.parse({ name: 'My site', address: addressFromEnvironment, ...(saved?.value as object) })
  }
  const known = kept(() => read())
  events.on('site', known.forget)

  const write = (tx: Queryable, key: string, value: unknown) =>
    tx.insert(settings).values({ key, value }).onConflictDoUpdate({ target: settings.key, set: { value } })

  async function former(q: Queryable = db): Promise<string[]> {
    const [row] = await q.select().from(settings).where(eq(settings.key, FORMER_KEY))
    return row ? z.array(z.string()).parse(row.value) : []
  }

  return {
    get: known.get,

    /** How it speaks to its visitors. */
    async speech(): Promise<Speech> {
      const { language, words, counts } = await known.get()
      return speechOf(language, words, counts)
    },

    /** Hosts, with their ports, that the site answers at or once did: addresses that name one are its own. */
    async hosts(): Promise<string[]> {
      const now = hostOf((await this.get()).address)
      return [...new Set([...(now ? [now] : []), ...(await former())])]
    },

    async set(changed: SiteChange): Promise<Site> {
      return db.transaction(async tx => {
        // Its name may be set in one window and its words in another: the second waits, and keeps what the first has said.
        await tx.select({ key: settings.key }).from(settings).where(eq(settings.key, KEY)).for('update')
        const before = await read(tx)
        const site = { ...before, ...Object.fromEntries(Object.entries(changed).filter(([, value]) => value !== undefined)) }
        const left = hostOf(before.address)
        await write(tx, KEY, site)
        if (left && left !== hostOf(site.address)) await write(tx, FORMER_KEY, [...new Set([...(await former(tx)), left])])
        return site
      })
    },
  }
}
export type SiteService = ReturnType<typeof createSiteService>
