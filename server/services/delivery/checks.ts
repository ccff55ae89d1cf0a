import { LRUCache } from 'lru-cache'
import { eq } from 'drizzle-orm'
import { z } from 'zod'
import type { ByteRange } from '../../../core/http/range'
import type { Database } from '../../db/connection'
import { settings } from '../../db/schema'
import type { Store } from '../../store/store'
import type { Events } from '../events'
import { kept } from '../kept'
import type { Hashing } from '../trust/hashing'
import type { Deliverable } from './deliverable'
import { Damaged } from './filler'

const KEY = 'delivery'
export const deliverySettingsSchema = z.object({
  /** stored bytes are held against their SHA-256 before they are sent */
  check: z.boolean().default(false),
})
export type DeliverySettings = z.infer<typeof deliverySettingsSchema>

/** Milliseconds for which bytes that were whole are taken to be so: the ranges of one download are checked once. */
const TRUSTED = 10 * 60 * 1000

/** Holds stored bytes against their SHA-256 before they are sent, where the owner has chosen so: it costs a second for each gigabyte. */
export function createDeliveryChecks(db: Database, store: Store, hashing: Hashing, events: Events) {
  const known = kept(async (): Promise<DeliverySettings> => {
    const [row] = await db.select().from(settings).where(eq(settings.key, KEY))
    return deliverySettingsSchema.parse(row?.value ?? {})
  })
  const whole = new LRUCache<string, true>({ max: 10_000, ttl: TRUSTED })
  events.on('bytes', hashes => hashes.forEach(sha256 => whole.delete(sha256)))
  events.on('settings', keys => keys.includes(KEY) && known.forget())

  function* sourcesOf({ bytes }: Deliverable, ranges: ByteRange[]): Generator<string> {
    if ('sha256' in bytes) yield bytes.sha256
    else
      for (const range of ranges)
        for (const stretch of bytes.layout.stretches(range)) if (!(stretch instanceof Uint8Array)) yield stretch.source
  }

  return {
    get: known.get,
    async set(changed: DeliverySettings): Promise<DeliverySettings> {
      await db
        .insert(settings)
        .values({ key: KEY, value: changed })
        .onConflictDoUpdate({ target: settings.key, set: { value: changed } })
      return changed
    },

    /** Whether bytes are checked; at once where that is known. */
    isOn: (): boolean | Promise<boolean> => known.now()?.check ?? known.get().then(({ check }) => check),

    /** @throws Damaged where bytes of these ranges are not what they were */
    async check(deliverable: Deliverable, ranges: ByteRange[]): Promise<void> {
      const doubtful = [...new Set(sourcesOf(deliverable, ranges))].filter(sha256 => !whole.has(sha256))
      await store.withFiles(doubtful, files =>
        hashing.run(files, ({ sha256, found }) => {
          if (found === sha256) whole.set(sha256, true)
        }),
      )
      const damaged = doubtful.find(sha256 => !whole.has(sha256))
      if (damaged) throw new Damaged(damaged, 'damaged', 'are not what they were')
    },
  }
}
export type DeliveryChecks = ReturnType<typeof createDeliveryChecks>
