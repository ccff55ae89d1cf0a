import { computed } from 'vue'
import { boardQuerySchema, type BoardQuery } from '~~/core/tally/board'
import { LISTED, type Listed } from '~~/core/tally/particulars'

type Change = Partial<Record<keyof BoardQuery | 'show', string | undefined>>

const SHOWN = ['sums', 'log', 'misses', 'brought'] as const

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
    /** sums, single downloads, what did not work, or what was brought in */
    shown: computed(() => SHOWN.find(each => each === route.query.show) ?? 'sums'),
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
