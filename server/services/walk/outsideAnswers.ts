import type { IncomingMessage } from 'node:http'
import { eq } from 'drizzle-orm'
import type { OutsideAnswer } from '../../../core/walk/facts'
import type { Database } from '../../db/connection'
import { settings } from '../../db/schema'
import type { Events } from '../events'
import { kept } from '../kept'
import { PrivateAddress } from '../jobs/ssrfGuard'
import { askOutside, hostOf } from '../jobs/outsideRequest'
import { WALK_AGENT } from './visitor'

const KEY = 'walkOutside'
const DAY = 24 * 60 * 60 * 1000
const SILENCE = 10_000
/** Different sites are asked side by side; none of them is asked for much. */
const AT_ONCE = 3
const MOST_REDIRECTS = 5
const LASTING = [301, 308]
const REDIRECTS = [...LASTING, 302, 303, 307]
/** HEAD is not for everybody: these mean "ask with GET". */
const ASK_WITH_GET = [403, 404, 405, 501]

/** Asks the addresses elsewhere that pages lead to, where the owner wants that; each once a day. */
export function createOutside(db: Database, allowedHosts: () => Promise<string[]>, events: Events) {
  const answers = new Map<string, { at: number; answer: OutsideAnswer }>()
  const on = kept(async (): Promise<boolean> => (await db.select().from(settings).where(eq(settings.key, KEY)))[0]?.value === true)
  events.on('settings', keys => keys.includes(KEY) && on.forget())

  async function once(url: URL, allowed: string[]): Promise<IncomingMessage> {
    const how = {
      allowed: allowed.includes(url.host) || allowed.includes(hostOf(url)),
      agent: WALK_AGENT,
      silence: SILENCE,
      signal: AbortSignal.timeout(SILENCE),
    }
    const answer = await askOutside(url, { ...how, method: 'HEAD' })
    answer.destroy()
    if (!ASK_WITH_GET.includes(answer.statusCode!)) return answer
    const again = await askOutside(url, { ...how, method: 'GET' })
    // What it says of itself is enough.
    again.destroy()
    return again
  }

  async function follow(href: string, allowed: string[]): Promise<OutsideAnswer> {
    let url = new URL(href)
    let movedTo: string | undefined
    let lasting = true
    try {
      for (let redirects = 0; redirects <= MOST_REDIRECTS; redirects++) {
        const {
          statusCode: status = 0,
          headers: { location },
        } = await once(url, allowed)
        if (!REDIRECTS.includes(status) || !location || !URL.canParse(location, url))
          return { status, movedTo: status === 200 ? movedTo : undefined }
        url = new URL(location, url)
        if (!/^https?:$/.test(url.protocol)) return { status: 0 }
        lasting &&= LASTING.includes(status)
        if (lasting) movedTo = url.href
      }
      // From one place to the next without end.
      return { status: 508 }
    } catch (error) {
      // Whatever went wrong on the way, a visitor would have had no answer.
      return error instanceof PrivateAddress ? { status: 0, private: true } : { status: 0 }
    }
  }

  return {
    isOn: on.get,
    async switch(wanted: boolean): Promise<void> {
      await db
        .insert(settings)
        .values({ key: KEY, value: wanted })
        .onConflictDoUpdate({ target: settings.key, set: { value: wanted } })
      if (!wanted) answers.clear()
    },

    /** Asks those that were not asked within a day. */
    async ask(hrefs: string[]): Promise<void> {
      if (!(await on.get())) return
      const waiting = [...new Set(hrefs)].filter(href => Date.now() - (answers.get(href)?.at ?? 0) > DAY)
      const allowed = waiting.length ? await allowedHosts() : []
      const lane = async () => {
        for (let href = waiting.pop(); href; href = waiting.pop())
          answers.set(href, { at: Date.now(), answer: await follow(href, allowed) })
      }
      await Promise.all(Array.from({ length: AT_ONCE }, lane))
    },

    known: (href: string): OutsideAnswer | undefined => answers.get(href)?.answer,
  }
}
export type Outside = ReturnType<typeof createOutside>
