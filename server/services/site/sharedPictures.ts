import { LRUCache } from 'lru-cache'
import sharp from 'sharp'
import { sharedPictureSvg } from '../../../core/page/sharedPicture'
import { openLettering } from '../lettering/lettering'
import type { LookService } from '../looks/looks'
import type { SiteService } from './site'

/** Draws what stands for pages without a picture where others link to them. */
export function createSharedPictures(site: SiteService, looks: LookService) {
  const drawn = new LRUCache<string, Promise<Buffer>>({ max: 40 })
  return {
    /** A PNG for a page with a title. */
    async of(title: string): Promise<Buffer> {
      const [{ name }, { palette, type }] = [await site.get(), await looks.style()]
      const typeface = type.heading === 'sans' || type.heading === 'hanken' ? 'hanken' : 'literata'
      const key = JSON.stringify([title, name, palette, typeface])
      const draw = async () => sharp(Buffer.from(sharedPictureSvg({ title, site: name, palette }, await openLettering(typeface)))).png({ palette: true }).toBuffer()
      const known = drawn.get(key) ?? draw()
      drawn.set(key, known)
      known.catch(() => drawn.delete(key))
      return known
    },
  }
}
export type SharedPictures = ReturnType<typeof createSharedPictures>
