import { LRUCache } from 'lru-cache'
import type { SharedPictureMessage, SharedPictureTask } from '../../workers/sharedPicture'
import type { LookService } from '../looks/looks'
import { createAsker, workerScript } from '../workerHost'
import type { SiteService } from './site'

/** Pictures of some 15 kB that are kept: a site has fewer pages. */
const MOST = 1000
/** Milliseconds one may take to be drawn. */
const PATIENCE = 30_000

/** What stands for pages without a picture where others link to them; drawn in a worker, once. */
export function createSharedPictures(site: SiteService, looks: LookService) {
  const drawn = new LRUCache<string, Promise<Buffer>>({ max: MOST })
  const drawer = createAsker<SharedPictureTask, SharedPictureMessage>(workerScript('sharedPicture'), PATIENCE)
  return {
    /** A PNG for a page with a title. */
    async of(title: string): Promise<Buffer> {
      const [{ name }, { palette, type }] = [await site.get(), await looks.style()]
      const task: SharedPictureTask = {
        title,
        site: name,
        palette,
        typeface: type.heading === 'sans' || type.heading === 'hanken' ? 'hanken' : 'literata',
      }
      const key = JSON.stringify(task)
      const known = drawn.get(key) ?? drawer.ask(task).then(bytes => Buffer.from(bytes))
      drawn.set(key, known)
      known.catch(() => drawn.delete(key))
      return known
    },

    close: () => drawer.close(),
  }
}
export type SharedPictures = ReturnType<typeof createSharedPictures>
