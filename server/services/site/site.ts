import { z } from 'zod'
import type { Database } from '../../db/connection'
import { settings } from '../../db/schema'
import type { Events } from '../events'

export const siteSchema = z.object({
  name: z.string().trim().min(1, 'Give the site a name.').max(120, 'Keep the name to 120 characters.'),
  /** scheme and host of the public site, without a slash at the end; empty until known */
  address: z.union([
    z.literal(''),
    z.url({ protocol: /^https?$/, error: 'Give the whole address, such as https://www.example.com.' })
      .refine(text => !URL.canParse(text) || new URL(text).pathname === '/', 'Give the address without a path.')
      .transform(text => new URL(text).origin),
  ]),
})
export type Site = z.infer<typeof siteSchema>

const KEY = 'site'

/** The site's name and public address. */
export function createSiteService(db: Database, events: Events, addressFromEnvironment: string) {
  let known: Site | undefined
  return {
    async get(): Promise<Site> {
      const rows = known ? [] : await db.select().from(settings)
      const saved = rows.find(row => row.key === KEY)
      known ??= siteSchema.parse({ name: 'My site', address: addressFromEnvironment, ...saved?.value as object })
      return known
    },
    async set(site: Site): Promise<Site> {
      await db.insert(settings).values({ key: KEY, value: site })
        .onConflictDoUpdate({ target: settings.key, set: { value: site } })
      known = site
      events.emit('site')
      return site
    },
  }
}
export type SiteService = ReturnType<typeof createSiteService>
