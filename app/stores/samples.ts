import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { entryItemSchema, ledEntrySchema, type EntryItem, type LedEntry } from '~~/core/catalogue/entry'
import { filesIn } from '~~/core/catalogue/values'
import { ask } from '~/composables/api'

/** As many as a list has on one page at first. */
const FIRST = 24
const listSchema = z.object({ items: z.array(entryItemSchema) })
const ledSchema = z.object({ items: z.array(ledEntrySchema) })

const byFilled = (a: EntryItem, b: EntryItem) => Object.keys(b.values).length - Object.keys(a.values).length

/** Some entries of catalogues: what is laid out for all of them is shown with the first ones. */
export const useSamples = defineStore('samples', () => {
  const byCatalogue = shallowRef(new Map<string, EntryItem[]>())
  /** Of each catalogue the one that has most of what there is to lay out. */
  const fullest = computed(() => new Map([...byCatalogue.value].map(([id, items]) => [id, items.toSorted(byFilled)[0]])))
  const led = shallowRef(new Map<string, LedEntry>())
  const asked = new Map<string, number>()

  /** Asks for the first entries of a catalogue, once until something of them changes. */
  async function meet(catalogue: string) {
    const { changes, byId } = useCatalogues()
    if (asked.get(catalogue) === changes) return
    asked.set(catalogue, changes)
    try {
      const { items } = await ask(listSchema, `/catalogues/${catalogue}/entries?first=${FIRST}`)
      const fields = byId.get(catalogue)?.fields ?? []
      await useLibrary().meet([...new Set(items.flatMap(({ values }) => filesIn(fields, values)))])
      byCatalogue.value = new Map(byCatalogue.value).set(catalogue, items)
    } catch {
      asked.delete(catalogue)
    }
  }

  const awaited = new Set<string>()
  /** An entry that something leads to; asked for where it is not known yet. */
  function entry(id: string): LedEntry | undefined {
    const known = led.value.get(id)
    if (known || awaited.has(id)) return known
    awaited.add(id)
    void ask(ledSchema, `/entries?ids=${id}`).then(
      ({ items }) => learn(items),
      () => awaited.delete(id),
    )
    return undefined
  }
  function learn(items: LedEntry[]) {
    led.value = new Map([...led.value, ...items.map(item => [item.id, item] as const)])
  }
  async function find(q: string): Promise<LedEntry[]> {
    const { items } = await ask(ledSchema, `/entries?q=${encodeURIComponent(q)}`)
    learn(items)
    return items
  }

  return { byCatalogue, fullest, meet, entry, find }
})
