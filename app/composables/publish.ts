import { computed, ref, watch } from 'vue'
import { ghostsIn } from '~~/core/page/ghosts'
import { placementsOf } from '~~/core/page/targets'
import type { Finding } from '~~/core/walk/finding'

const busy = ref(false)
const blocking = ref<Finding[]>()
/** the page that goes live when the files of its buttons are in */
const awaited = ref<{ page: string; title: string; placements: string[] }>()

/** Publishes the open page; what would stop visitors holds it back until it is seen. */
export function usePublish() {
  const page = usePage()
  const notices = useNotices()
  const uploads = useUploads()

  /** Buttons of the open page whose files are still on their way. */
  const arriving = () =>
    page.draft
      ? placementsOf(page.draft)
          .map(({ id }) => id)
          .filter(id => uploads.forPlacement(id))
      : []

  /** What visitors do not get because it is still to be written. */
  function unwritten() {
    const [first, ...others] = page.draft ? ghostsIn(page.draft) : []
    if (!first) return ''
    return ` Not on it, since nothing is written there yet: “${first}”${others.length ? ` and ${others.length} more` : ''}.`
  }

  async function publish(despite = false) {
    if (busy.value || !page.current) return
    const placements = despite ? [] : arriving()
    if (placements.length) {
      awaited.value = { page: page.current.id, title: page.current.title, placements }
      return
    }
    awaited.value = undefined
    busy.value = true
    blocking.value = undefined
    try {
      const live = await page.publish(despite)
      void useLibrary().refresh()
      void useChecks().count()
      notices.say(`“${live.title}” is live.${unwritten()}`, { tone: 'works', action: { label: 'View live', run: viewLive } })
    } catch (error) {
      if (error instanceof ApiProblem && Array.isArray(error.extra.findings)) blocking.value = error.extra.findings as Finding[]
      else notices.refused(error)
    } finally {
      busy.value = false
    }
  }

  function viewLive() {
    if (page.liveHref) window.open(page.liveHref, '_blank', 'noopener')
  }

  /** Files of the page that goes live when they are in, as far as they are still on their way. */
  const waitsFor = computed(() =>
    awaited.value?.page === page.current?.id ? (awaited.value?.placements.filter(id => uploads.forPlacement(id)).length ?? 0) : 0,
  )

  /** To be called once: puts the page live as soon as its files are in, and says so where that cannot be. */
  function watchArrivals() {
    watch(
      () =>
        awaited.value && {
          ...awaited.value,
          left: awaited.value.placements.flatMap(id => uploads.forPlacement(id) ?? []),
          open: page.current?.id === awaited.value.page,
        },
      async now => {
        if (!now) return
        const failed = now.left.find(entry => entry.state === 'failed')
        if (!now.open || failed) {
          awaited.value = undefined
          notices.say(
            failed
              ? `“${now.title}” is not live: “${failed.name}” did not come in.`
              : `“${now.title}” was closed before its files were in, and is not live.`,
            { tone: 'attention' },
          )
        } else if (!now.left.length) {
          awaited.value = undefined
          await page.settle().catch(() => undefined)
          await publish()
        }
      },
      { deep: true },
    )
  }

  return {
    waitsFor,
    watchArrivals,
    stopWaiting: () => (awaited.value = undefined),
    busy: computed(() => busy.value),
    blocking: computed(() => blocking.value),
    publish,
    viewLive,
    dismiss: () => (blocking.value = undefined),
  }
}
