import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { destinationOf } from '~~/core/page/destination'
import { targetFacts } from '~~/core/page/placeholders'
import type { Target } from '~~/core/page/schema'

/** Where a placement on the open page leads, and what is wrong with that. */
export function useDestination(of: MaybeRefOrGetter<Target | null>) {
  const library = useLibrary()
  const pages = usePages()
  const open = usePage()
  const target = computed(() => toValue(of))

  /** the file, be it in the bin */
  const file = computed(() => target.value?.kind === 'file' ? library.known.get(target.value.id) : undefined)
  const page = computed(() => {
    const { value } = target
    return value?.kind === 'page' ? pages.items.find(each => each.id === value.id) : undefined
  })
  const destination = computed(() => destinationOf(target.value, {
    file: () => file.value && !file.value.deleted ? targetFacts(file.value) : undefined,
    page: () => page.value,
  }))
  const fault = computed(() => {
    if (!target.value) return 'Leads nowhere yet.'
    if (file.value?.deleted) return `“${file.value.title}” is in the bin.`
    if (!destination.value) return target.value.kind === 'page' ? 'The page it led to is gone.' : 'The file it led to is gone.'
    return page.value && !page.value.published && page.value.id !== open.current?.id ? `“${page.value.title}” is not live yet.` : undefined
  })

  return { file, page, destination, fault }
}
