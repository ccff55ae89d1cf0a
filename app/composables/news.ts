import { useDocumentVisibility, useEventSource } from '@vueuse/core'
import { onBeforeUnmount, watch } from 'vue'
import { z } from 'zod'
import { justActed } from './ownActs'

/** Milliseconds between two looks at what was told. */
const EVERY = 1000
/** Milliseconds after which what may have been one's own act is shown anew in any case. */
const OWN = 5000
/** The same for counts, which change all the time where many visitors come. */
const COUNTS = 30_000

const LIBRARY = ['library', 'folders', 'read', 'uses', 'signposts', 'downloads']
const PAGES = ['live', 'uses']
const SITE = ['site']
const GATES = ['gates']
const ARRIVALS = ['arrivals']
const SESSIONS = ['sessions']
const CATALOGUES = ['entries', 'catalogues']
const JOBS = 'jobs'
const topicsSchema = z.array(z.string())

/**
 * Shows what changes elsewhere: in another window, by somebody else, by itself. What this window does it shows by itself; what is told
 * meanwhile waits a little, and is shown then.
 */
export function useNews(): void {
  const visibility = useDocumentVisibility()
  const { data, status, error, open, close } = useEventSource('/api/news', [], {
    immediate: false,
    autoReconnect: { delay: 3000 },
    serializer: { read: told => topicsSchema.parse(JSON.parse(told ?? '[]')) },
  })
  const waiting = new Set<string>()
  let since = 0
  let busy = false

  /** A connection that is lost is said where something is done. */
  const quietly = (act: () => Promise<unknown>) => act().catch(() => undefined)
  const showJobs = () => quietly(() => useJobs().load())

  function take(topics: Iterable<string>) {
    since ||= performance.now()
    for (const topic of topics) waiting.add(topic)
  }

  // A browser opens only a few connections to one server: windows that are not seen have none.
  watch(visibility, seen => (seen === 'visible' ? open() : close()), { immediate: true })
  watch(data, topics => {
    if (!topics) return
    // How far work is that takes a while is shown as it goes, whatever else is done.
    if (topics.includes(JOBS)) void showJobs()
    // Whoever looks at downloads sees them come; counts elsewhere follow with the rest.
    if (topics.includes('downloads')) useTaken().changes++
    const others = topics.filter(topic => topic !== JOBS)
    if (others.length) take(others)
  })
  // It is ended for who is signed out elsewhere, or was let go: what the desk shows is nobody's then.
  watch(error, failed => {
    if (failed) void quietly(leaveIfSignedOut)
  })
  // What happened while nobody told.
  let opened = false
  watch(status, now => {
    if (now !== 'OPEN') return
    void showJobs()
    void quietly(() => useReading().load())
    if (opened) take([...LIBRARY, ...PAGES, ...SITE, ...GATES, ...ARRIVALS, ...CATALOGUES])
    opened = true
  })

  let isLeft = false
  async function leaveIfSignedOut() {
    const rights = useRights()
    await rights.load()
    // Once: who is asked whether what is not saved may go, and says no, is not asked again.
    if (!rights.account && !isLeft) window.location.assign('/desk/sign-in')
    isLeft = !rights.account
  }

  async function show() {
    const topics = [...waiting]
    const touches = (of: string[]) => topics.some(topic => of.includes(topic))
    waiting.clear()
    since = 0
    // What may be done decides what is asked for.
    if (touches(SESSIONS)) await useRights().load()
    const people = usePeople()
    await Promise.all([
      touches(LIBRARY) ? useLibrary().refresh() : undefined,
      touches(PAGES) ? usePages().load() : undefined,
      topics.includes('live') ? useChecks().count() : undefined,
      touches(SITE) ? useSession().load() : undefined,
      touches(GATES) ? useGates().load() : undefined,
      touches(CATALOGUES) ? useCatalogues().refresh() : undefined,
      touches(ARRIVALS) ? useArrivals().load() : undefined,
      touches(SESSIONS) && people.loaded && useRights().owner ? people.load() : undefined,
    ])
  }

  const timer = setInterval(() => {
    if (!waiting.size || busy) return
    const waited = performance.now() - since
    const onlyCounts = [...waiting].every(topic => topic === 'downloads')
    if (waited < (onlyCounts ? COUNTS : justActed() ? OWN : 0)) return
    busy = true
    void quietly(show).finally(() => (busy = false))
  }, EVERY)
  onBeforeUnmount(() => clearInterval(timer))
}
