import { eq } from 'drizzle-orm'
import sharp from 'sharp'
import { z } from 'zod'
import { iconSvg } from '../../../core/page/icon'
import type { Database } from '../../db/connection'
import { settings } from '../../db/schema'
import type { Events } from '../events'
import { kept } from '../kept'
import { getFile } from '../files/items'
import type { LookService } from '../looks/looks'
import type { Pictures } from '../pictures/pictures'
import type { SiteService } from './site'

const KEY = 'site-icon'
const valueSchema = z.object({ png: z.base64() })
/** Pixels across: enough for the largest place that browsers and telephones show it in. */
const SIZE = 192

/** null for none of the owner's own */
export const iconChoiceSchema = z.object({ file: z.string().nullable() })

/** The site's icon: a picture of the owner's, kept as it was when it was chosen, or the site's initial in its colours. */
export function createSiteIcon({
  db,
  events,
  site,
  looks,
  pictures,
}: {
  db: Database
  events: Events
  site: SiteService
  looks: LookService
  pictures: Pictures
}) {
  const known = kept(async () => {
    const [row] = await db.select().from(settings).where(eq(settings.key, KEY))
    return row ? Buffer.from(valueSchema.parse(row.value).png, 'base64') : null
  })
  events.on('settings', keys => keys.includes(KEY) && known.forget())

  return {
    /** What is shown, as SVG or PNG. */
    async get(): Promise<{ bytes: Buffer; contentType: string; own: boolean }> {
      const png = await known.get()
      if (png) return { bytes: png, contentType: 'image/png', own: true }
      return {
        bytes: Buffer.from(iconSvg((await site.get()).name, (await looks.style()).palette)),
        contentType: 'image/svg+xml',
        own: false,
      }
    },

    /**
     * Takes what shows a file of the library, whole, on a square; later changes of the file leave the icon as it is.
     *
     * @param file its identity; null goes back to the one that is drawn
     * @throws Problem 404 where there is no such file, or nothing that shows it
     */
    async choose(file: string | null): Promise<void> {
      if (file === null) {
        await db.delete(settings).where(eq(settings.key, KEY))
        return
      }
      const { handle } = await getFile(db, file)
      const { bytes } = await pictures.find(handle, 320)
      const png = await sharp(bytes)
        .resize(SIZE, SIZE, { fit: 'contain', background: { r: 0, g: 0, b: 0, alpha: 0 } })
        .png()
        .toBuffer()
      const value = { png: png.toString('base64') }
      await db.insert(settings).values({ key: KEY, value }).onConflictDoUpdate({ target: settings.key, set: { value } })
    },
  }
}
export type SiteIcon = ReturnType<typeof createSiteIcon>
