import { computed, ref } from 'vue'
import type { BrokenPlacement } from '~~/core/walk/broken'

const busy = ref(false)
const broken = ref<BrokenPlacement[]>()

/** Publishes the open page; placements that lead nowhere hold it back until they are seen. */
export function usePublish() {
  const page = usePage()
  const notices = useNotices()

  async function publish(despite = false) {
    if (busy.value || !page.current) return
    busy.value = true
    broken.value = undefined
    try {
      const live = await page.publish(despite)
      void useLibrary().refresh()
      notices.say(`“${live.title}” is live.`, { tone: 'works', action: { label: 'View live', run: viewLive } })
    }
    catch (error) {
      if (error instanceof ApiProblem && Array.isArray(error.extra.broken)) broken.value = error.extra.broken as BrokenPlacement[]
      else notices.say(wordsOf(error), { tone: 'attention' })
    }
    finally {
      busy.value = false
    }
  }

  function viewLive() {
    if (page.liveHref) window.open(page.liveHref, '_blank', 'noopener')
  }

  return { busy: computed(() => busy.value), broken: computed(() => broken.value), publish, viewLive, dismiss: () => broken.value = undefined }
}
