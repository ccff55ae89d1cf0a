import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { destinationOf } from '~~/core/page/destination'
import { targetFacts } from '~~/core/page/placeholders'
import { OWN_PAGE, targetOfField, type Filling } from '~~/core/catalogue/bind'
import type { Target } from '~~/core/page/schema'

/**
 * Where a placement on the open page leads, and what is wrong with that.
 *
 * @param filling the entry that stands for all, where it is laid out for the entries of a catalogue
 */
export function useDestination(of: MaybeRefOrGetter<Target | null>, filling: MaybeRefOrGetter<Filling | undefined> = undefined) {
  const library = useLibrary()
  const pages = usePages()
  const signposts = useSignposts()
  const mayBeSeen = useLooking()
  const open = usePage()
  const behind = useBehind()
  const samples = useSamples()
  const given = computed(() => toValue(of))
  const target = computed(() => {
    const { value } = given
    const sample = toValue(filling)
    return value?.kind === 'field' && sample ? targetOfField(value.field, sample) : value
  })
  /** what each entry has there; undefined where it does not hang on a field */
  const field = computed(() => (given.value?.kind === 'field' ? given.value.field : undefined))

  const signpost = computed(() => (target.value?.kind === 'signpost' ? signposts.byId.get(target.value.id) : undefined))
  /** the file, be it in the bin; of a signpost the one it points at */
  const file = computed(() => library.known.get((target.value?.kind === 'file' ? target.value.id : signpost.value?.file) ?? ''))
  const isOut = computed(() => !file.value || !!file.value.deleted || file.value.withdrawn)
  const page = computed(() => {
    const { value } = target
    return value?.kind === 'page' ? pages.items.find(each => each.id === value.id) : undefined
  })
  const destination = computed(() =>
    destinationOf(target.value, {
      file: () => (file.value && !isOut.value ? targetFacts(file.value, mayBeSeen(file.value), behind(file.value)) : undefined),
      page: () => page.value && { ...page.value, asks: behind({ gate: page.value.gate, folder: null })?.asks },
      entry: id => samples.entry(id),
      signpost: () => signpost.value,
    }),
  )
  const fault = computed(() => {
    if (field.value !== undefined) {
      const sample = toValue(filling)
      const known = field.value === OWN_PAGE || !sample || sample.fields.some(({ id }) => id === field.value)
      return known ? undefined : 'The field it led to is gone.'
    }
    if (!target.value) return 'Leads nowhere yet.'
    if (target.value.kind === 'signpost' && !signpost.value) return 'The signpost it led to is gone.'
    if (signpost.value && !file.value) return `The signpost “${signpost.value.title}” points at nothing.`
    if (file.value?.deleted) return `“${file.value.title}” is in the bin.`
    if (file.value?.withdrawn) return `“${file.value.title}” was withdrawn.`
    if (file.value && behind(file.value)?.hidden) return `“${file.value.title}” is hidden: visitors do not see this.`
    if (!destination.value) return target.value.kind === 'page' ? 'The page it led to is gone.' : 'The file it led to is gone.'
    return page.value && !page.value.published && page.value.id !== open.current?.id ? `“${page.value.title}” is not live yet.` : undefined
  })

  return { file, signpost, page, destination, fault }
}
