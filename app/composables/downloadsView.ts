import { computed } from 'vue'
import { boardQuerySchema, type BoardQuery } from '~~/core/tally/board'
import { LISTED, type Listed } from '~~/core/tally/particulars'

type Change = Partial<Record<keyof BoardQuery | 'show', string | undefined>>

/** What the board of downloads shows is its address: it can be sent to somebody, and one goes back by the browser. */
export function useDownloadsView() {
  const route = useRoute()
  const router = useRouter()
  const read = (query: Record<string, unknown>) => boardQuerySchema.safeParse(query).data ?? boardQuerySchema.parse({})
  const view = computed(() => read(route.query))
  const given = computed(() => {
    const { list: _list, most: _most, stack: _stack, ...rest } = view.value
    return new URLSearchParams(
      Object.entries(rest).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
    ).toString()
  })

  /** Shows something else; what is undefined is taken out. */
  const show = (change: Change) => router.push({ query: { ...route.query, ...change } })

  return {
    view,
    /** the view alone, as the API takes it */
    given,
    /** sums, single downloads, or what did not work */
    shown: computed(() => (route.query.show === 'log' || route.query.show === 'misses' ? route.query.show : 'sums')),
    show,
    narrowed: computed(() =>
      LISTED.flatMap((dimension): [Listed, string][] => {
        const key = view.value[dimension]
        return key === undefined ? [] : [[dimension, key]]
      }),
    ),
    narrow: (dimension: Listed, key: string | undefined) => show({ [dimension]: key }),
  }
}
