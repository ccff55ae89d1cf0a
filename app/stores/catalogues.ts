import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { catalogueItemSchema, type CatalogueChange, type CatalogueItem, type NewCatalogue } from '~~/core/catalogue/catalogue'
import type { Field } from '~~/core/catalogue/field'
import type { Loss } from '~~/core/catalogue/fieldChange'
import { ApiProblem, ask, tell } from '~/composables/api'

const listSchema = z.object({ items: z.array(catalogueItemSchema) })
const madeSchema = z.object({ layout: z.string(), list: z.string() })
const publishedSchema = z.object({
  live: z.number(),
  lacking: z.array(z.object({ id: z.string(), title: z.string(), field: z.string() })),
})
export type PublishedEntries = z.infer<typeof publishedSchema>

/** The catalogues of the site, and what is done with them as a whole. */
export const useCatalogues = defineStore('catalogues', () => {
  const items = ref<CatalogueItem[]>([])
  const loaded = ref(false)
  /** counts what was told of their entries */
  const changes = ref(0)
  /** those of many entries */
  const tables = computed(() => items.value.filter(({ ofSite }) => !ofSite))
  /** the values of the whole site, where there are any */
  const ofSite = computed(() => items.value.find(item => item.ofSite))
  const byId = computed(() => new Map(items.value.map(item => [item.id, item])))
  const waiting = computed(() => items.value.reduce((sum, each) => sum + each.waiting, 0))
  const rights = useRights()

  async function load() {
    if (rights.readsPages) items.value = (await ask(listSchema, '/catalogues')).items
    loaded.value = true
  }

  /** What was told of catalogues and entries. */
  async function refresh() {
    await load()
    changes.value++
  }

  async function create(made: NewCatalogue): Promise<CatalogueItem> {
    const item = await ask(catalogueItemSchema, '/catalogues', 'POST', made)
    await load()
    return item
  }

  /** The catalogue with the values of the whole site; made where there is none yet. */
  async function openOfSite(): Promise<CatalogueItem> {
    const item = await ask(catalogueItemSchema, '/catalogues/of-site', 'POST')
    await load()
    return item
  }

  async function change(id: string, changed: CatalogueChange) {
    await ask(catalogueItemSchema, `/catalogues/${id}`, 'PATCH', changed)
    await load()
  }

  /** Gives a catalogue other fields; gives what would be lost where that holds it back. */
  async function changeFields(id: string, fields: Field[], despite = false): Promise<Loss[]> {
    const { revision } = byId.value.get(id)!
    try {
      await ask(catalogueItemSchema, `/catalogues/${id}/fields`, 'PUT', { fields, revision, despite })
    } catch (error) {
      if (error instanceof ApiProblem && Array.isArray(error.extra.losses)) return error.extra.losses as Loss[]
      throw error
    }
    await refresh()
    return []
  }

  /** Takes a field out of the bin, with what entries had in it. */
  async function restoreField(id: string, field: string) {
    await tell(`/catalogues/${id}/fields/restore`, 'POST', { field })
    await refresh()
  }

  async function remove(id: string, despite: boolean) {
    await tell(`/catalogues/${id}${despite ? '?despite=yes' : ''}`, 'DELETE')
    await load()
    await usePages().load()
  }

  /** Makes the page that lists the entries, and what each is laid out in. */
  async function makePages(id: string): Promise<{ layout: string; list: string }> {
    const made = await ask(madeSchema, `/catalogues/${id}/pages`, 'POST')
    await Promise.all([load(), usePages().load()])
    return made
  }

  async function publish(id: string, ids?: string[]): Promise<PublishedEntries> {
    const published = await ask(publishedSchema, `/catalogues/${id}/entries/publish`, 'POST', ids ? { ids } : {})
    await refresh()
    return published
  }

  /** Puts live all entries that wait, in every catalogue. */
  async function publishWaiting(): Promise<PublishedEntries> {
    const all: PublishedEntries = { live: 0, lacking: [] }
    for (const { id, waiting: count } of items.value) {
      if (!count) continue
      const { live, lacking } = await publish(id)
      all.live += live
      all.lacking.push(...lacking)
    }
    return all
  }

  return {
    items,
    tables,
    ofSite,
    loaded,
    changes,
    byId,
    waiting,
    load,
    refresh,
    create,
    openOfSite,
    change,
    changeFields,
    restoreField,
    remove,
    makePages,
    publish,
    publishWaiting,
  }
})
