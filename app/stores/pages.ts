import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Use } from '~~/core/files/fileItem'
import { EDGES } from '~~/core/page/edges'
import type { BinnedPage, NewPage, PageDetails, PageItem } from '~~/core/page/pageItem'
import { ApiProblem, api, heldBy } from '~/composables/api'

/** The list of pages. */
export const usePages = defineStore('pages', () => {
  const all = ref<PageItem[]>([])
  const items = computed(() => all.value.filter(page => !page.edge))
  /** what stands on every page */
  const edges = computed(() => EDGES.flatMap(edge => all.value.filter(page => page.edge === edge)))
  const binned = ref<BinnedPage[]>([])
  const loaded = ref(false)
  const waiting = computed(() => all.value.filter(page => page.waiting))

  async function load() {
    const answer = await api<{ items: PageItem[]; binned: BinnedPage[] }>('/pages')
    all.value = answer.items
    binned.value = answer.binned
    loaded.value = true
  }

  async function create(page: NewPage): Promise<PageDetails> {
    const created = await api<PageDetails>('/pages', 'POST', page)
    await load()
    return created
  }

  async function duplicate(id: string): Promise<PageDetails> {
    const copy = await api<PageDetails>(`/pages/${id}/duplicate`, 'POST')
    await load()
    return copy
  }

  /** Publishes every page whose draft waits; those with places that lead nowhere are left and named. */
  async function publishWaiting(): Promise<{ live: PageItem[]; left: PageItem[] }> {
    const [live, left]: [PageItem[], PageItem[]] = [[], []]
    for (const page of waiting.value) {
      try {
        live.push(await api<PageItem>(`/pages/${page.id}/publish`, 'POST', {}))
      } catch (error) {
        if (!(error instanceof ApiProblem) || error.status !== 409) throw error
        left.push(page)
      }
    }
    await load()
    return { live, left }
  }

  /** Puts a page in the bin. Gives the places on other pages that lead to it where they hold that back. */
  async function remove(id: string, despite = false): Promise<Use[]> {
    const places = await heldBy(() => api(`/pages/${id}${despite ? '?despite=yes' : ''}`, 'DELETE'))
    if (!places.length) await load()
    return places
  }

  /** Takes a page out of the bin; gives the address it has now. */
  async function restore(id: string): Promise<string> {
    const { slug } = await api<{ slug: string }>(`/pages/${id}/restore`, 'POST')
    await load()
    return slug
  }

  async function removeForGood(id: string) {
    await api(`/pages/bin/${id}`, 'DELETE')
    await load()
  }

  return { items, edges, binned, loaded, waiting, load, create, duplicate, publishWaiting, remove, restore, removeForGood }
})
