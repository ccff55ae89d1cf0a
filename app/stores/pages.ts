import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Use } from '~~/core/files/fileItem'
import { EDGES } from '~~/core/page/edges'
import {
  pageDetailsSchema,
  binnedPageSchema,
  pageItemSchema,
  type BinnedPage,
  type NewPage,
  type PageDetails,
  type PageItem,
} from '~~/core/page/pageItem'
import { ApiProblem, ask, heldBy, tell } from '~/composables/api'

const listSchema = z.object({ items: z.array(pageItemSchema), binned: z.array(binnedPageSchema) })
const restoredSchema = z.object({ slug: z.string(), /** nobody passes: the gate it stood behind is gone */ gateGone: z.boolean() })

/** The list of pages. */
export const usePages = defineStore('pages', () => {
  const all = ref<PageItem[]>([])
  const items = computed(() => all.value.filter(page => !page.edge))
  /** what stands on every page */
  const edges = computed(() => EDGES.flatMap(edge => all.value.filter(page => page.edge === edge)))
  const binned = ref<BinnedPage[]>([])
  const loaded = ref(false)
  const rights = useRights()
  const waiting = computed(() => all.value.filter(page => page.waiting))

  async function load() {
    loaded.value ||= !rights.readsPages
    if (!rights.readsPages) return
    const answer = await ask(listSchema, '/pages')
    all.value = answer.items
    binned.value = answer.binned
    loaded.value = true
  }

  async function create(page: NewPage): Promise<PageDetails> {
    const created = await ask(pageDetailsSchema, '/pages', 'POST', page)
    await load()
    return created
  }

  async function duplicate(id: string): Promise<PageDetails> {
    const copy = await ask(pageDetailsSchema, `/pages/${id}/duplicate`, 'POST')
    await load()
    return copy
  }

  /**
   * Publishes every page whose draft waits; those with places that lead nowhere are left and named. The home page comes last: who comes by
   * it finds the others.
   */
  async function publishWaiting(): Promise<{ live: PageItem[]; left: PageItem[] }> {
    // What lists entries shows those that are live.
    await useCatalogues().publishWaiting()
    return publishSome(waiting.value)
  }

  /** Publishes some pages that wait, as `publishWaiting` does. */
  async function publishSome(some: PageItem[]): Promise<{ live: PageItem[]; left: PageItem[] }> {
    const isHome = ({ slug, edge }: PageItem) => Number(slug === '' && !edge)
    const live: PageItem[] = []
    let left = some.toSorted((one, other) => isHome(one) - isHome(other))
    let before: number
    // What leads to one that went live after it is tried once more.
    do {
      before = left.length
      const still: PageItem[] = []
      for (const page of left) {
        try {
          live.push(await ask(pageItemSchema, `/pages/${page.id}/publish`, 'POST', {}))
        } catch (error) {
          if (!(error instanceof ApiProblem) || error.status !== 409) throw error
          still.push(page)
        }
      }
      left = still
    } while (left.length && left.length < before)
    await load()
    return { live, left }
  }

  /** Puts a page in the bin. Gives the places on other pages that lead to it where they hold that back. */
  async function remove(id: string, despite = false): Promise<Use[]> {
    const places = await heldBy(() => tell(`/pages/${id}${despite ? '?despite=yes' : ''}`, 'DELETE'))
    if (!places.length) await load()
    return places
  }

  /** Takes a page out of the bin; gives the address it has now, and whether its gate is gone. */
  async function restore(id: string) {
    const back = await ask(restoredSchema, `/pages/${id}/restore`, 'POST')
    await load()
    return back
  }

  async function removeForGood(id: string) {
    await tell(`/pages/bin/${id}`, 'DELETE')
    await load()
  }

  return {
    all,
    items,
    edges,
    binned,
    loaded,
    waiting,
    load,
    create,
    duplicate,
    publishWaiting,
    publishSome,
    remove,
    restore,
    removeForGood,
  }
})
