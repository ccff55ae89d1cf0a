import type { Events } from '../events'
import { kept } from '../kept'
import type { PageService } from '../pages/pages'

/** The letterboxes that visitors see, kept until a page goes live: whoever sends forms to anywhere costs the database nothing. */
export function createLiveLetterboxes(pages: Pick<PageService, 'liveLetterboxes'>, events: Events) {
  const all = kept(() => pages.liveLetterboxes())
  events.on('live', all.forget)
  return {
    /** The letterbox with a placement, and its page; undefined where no visitor sees it. */
    find: async (placement: string) => (await all.get()).get(placement),
  }
}
export type LiveLetterboxes = ReturnType<typeof createLiveLetterboxes>
