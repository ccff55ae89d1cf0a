import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { NewPage, PageDetails, PageItem } from '~~/core/page/item'
import { api } from '~/composables/api'

/** The list of pages. */
export const usePages = defineStore('pages', () => {
  const items = ref<PageItem[]>([])
  const loaded = ref(false)
  const waiting = computed(() => items.value.filter(page => page.waiting))

  async function load() {
    items.value = (await api<{ items: PageItem[] }>('/pages')).items
    loaded.value = true
  }

  async function create(page: NewPage): Promise<PageDetails> {
    const created = await api<PageDetails>('/pages', 'POST', page)
    await load()
    return created
  }

  async function remove(id: string) {
    await api(`/pages/${id}`, 'DELETE')
    await load()
  }

  return { items, loaded, waiting, load, create, remove }
})
