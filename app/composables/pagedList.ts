import type { z } from 'zod'
import { computed, onMounted, ref, shallowRef, watch, type Ref } from 'vue'
import { useDebounceFn } from '@vueuse/core'
import { ask, wordsOf } from './api'

export const PER_PAGE = 50

/**
 * A long list of the desk, a page at a time, narrowed by what is asked.
 *
 * @param asked parts of the question; those that are empty are left out
 */
export function usePagedList<Item>(
  schema: z.ZodType<{ items: Item[]; total: number }>,
  path: string,
  asked: () => Record<string, string | null | undefined>,
) {
  const page = ref(1)
  const list: Ref<{ items: Item[]; total: number } | undefined> = shallowRef()
  const failure = ref('')
  const filter = computed(() => {
    const given = Object.entries(asked()).flatMap(([name, value]) => (value?.trim() ? [[name, value.trim()]] : []))
    return new URLSearchParams(given).toString()
  })
  let turn = 0

  async function load() {
    const mine = ++turn
    failure.value = ''
    try {
      const found = await ask(schema, `${path}?${filter.value}&from=${(page.value - 1) * PER_PAGE}&limit=${PER_PAGE}`)
      // What was asked for first may come last.
      if (mine === turn) list.value = found
    } catch (error) {
      failure.value = wordsOf(error)
    }
  }
  const loadSoon = useDebounceFn(load, 200)
  onMounted(load)
  watch(filter, () => {
    page.value = 1
    void loadSoon()
  })
  watch(page, load)

  return {
    page,
    list,
    failure,
    filter,
    load,
    /** nothing is there, whatever is asked */
    none: computed(() => !!list.value && !list.value.total && !filter.value),
    pages: computed(() => Math.ceil((list.value?.total ?? 0) / PER_PAGE)),
  }
}
