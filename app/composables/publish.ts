import { computed, ref } from 'vue'
import type { Finding } from '~~/core/walk/finding'

const busy = ref(false)
const blocking = ref<Finding[]>()

/** Publishes the open page; what would stop visitors holds it back until it is seen. */
export function usePublish() {
  const page = usePage()
  const notices = useNotices()

  async function publish(despite = false) {
    if (busy.value || !page.current) return
    busy.value = true
    blocking.value = undefined
    try {
      const live = await page.publish(despite)
      void useLibrary().refresh()
      void useChecks().count()
      notices.say(`“${live.title}” is live.`, { tone: 'works', action: { label: 'View live', run: viewLive } })
    }
    catch (error) {
      if (error instanceof ApiProblem && Array.isArray(error.extra.findings)) blocking.value = error.extra.findings as Finding[]
      else notices.say(wordsOf(error), { tone: 'attention' })
    }
    finally {
      busy.value = false
    }
  }

  function viewLive() {
    if (page.liveHref) window.open(page.liveHref, '_blank', 'noopener')
  }

  return { busy: computed(() => busy.value), blocking: computed(() => blocking.value), publish, viewLive, dismiss: () => blocking.value = undefined }
}
