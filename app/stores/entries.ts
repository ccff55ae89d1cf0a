import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import {
  binnedEntrySchema,
  binnedFieldSchema,
  entryItemSchema,
  entryListSchema,
  entryPlaceSchema,
  entryVersionSchema,
  type BinnedEntry,
  type BinnedField,
  type EntryItem,
  type EntryPlace,
  type EntryVersion,
  type Value,
  type Values,
} from '~~/core/catalogue/entry'
import { filesIn } from '~~/core/catalogue/values'
import { matchedSchema, type Matched } from '~~/core/catalogue/match'
import { ApiProblem, ask, tell, wordsOf } from '~/composables/api'

const listSchema = z.object({ items: z.array(entryItemSchema) })
/** Rows that are asked for first: more than a screen has. */
const FIRST = 60
const binSchema = z.object({ items: z.array(binnedEntrySchema), fields: z.array(binnedFieldSchema) })
const versionsSchema = z.object({ items: z.array(entryVersionSchema) })
const placesSchema = z.object({ items: z.array(entryPlaceSchema) })
const matchesSchema = z.object({ items: z.array(matchedSchema) })

/** Cells as they shall be; null empties one. */
export type Cells = Record<string, Value | null>
export interface CellChange {
  id: string
  values: Cells
}
/** Something that was done to cells, and what undoes it. */
interface Step {
  before: CellChange[]
  after: CellChange[]
}

const MOST_STEPS = 200
/** Sent together; a long paste goes in stretches. */
const AT_ONCE = 2000

/** The entries of the catalogue that is open, and what is written in them. */
export const useEntries = defineStore('entries', () => {
  const catalogue = ref<string>()
  const items = shallowRef<EntryItem[]>([])
  /** all of them are here */
  const loaded = ref(false)
  /** names the state of those that are here */
  let stamp: string | undefined
  const binned = ref<BinnedEntry[]>([])
  const binnedFields = ref<BinnedField[]>([])
  const byId = computed(() => new Map(items.value.map(item => [item.id, item])))
  const past = shallowRef<Step[]>([])
  const future = shallowRef<Step[]>([])
  const saving = ref(0)
  /** One after another: each is made to what the one before left. */
  let last: Promise<unknown> = Promise.resolve()
  const inTurn = <T>(act: () => Promise<T>): Promise<T> => {
    const next = last.then(act, act)
    last = next.catch(() => undefined)
    return next
  }

  const path = () => `/catalogues/${catalogue.value}`

  /** Files that are shown are known. */
  async function meetFiles(some: EntryItem[]) {
    const fields = useCatalogues().byId.get(catalogue.value ?? '')?.fields ?? []
    const ids = [...new Set(some.flatMap(({ values }) => filesIn(fields, values)))]
    if (ids.length) await useLibrary().meet(ids)
  }

  async function load() {
    const of = catalogue.value
    if (!of) return
    const catalogues = useCatalogues()
    const list = (asked: string) => ask(entryListSchema, `/catalogues/${of}/entries?${asked}`)
    const known = stamp
    let [found] = await Promise.all([
      list(known ? `since=${known}` : `first=${FIRST}`),
      // Fields say which values are files.
      catalogues.byId.has(of) ? undefined : catalogues.load(),
    ])
    if (catalogue.value !== of) return
    if (!known && found.items.length === FIRST) {
      // Those that are seen at once come first.
      items.value = found.items
      found = await list('')
      if (catalogue.value !== of) return
    }
    if (found.whole) {
      items.value = found.items
      void meetFiles(found.items)
    } else take(found.items)
    stamp = found.stamp
    loaded.value = true
  }

  async function open(id: string) {
    if (catalogue.value !== id) {
      catalogue.value = id
      loaded.value = false
      stamp = undefined
      items.value = []
      past.value = []
      future.value = []
    }
    await load()
  }

  function take(changed: EntryItem[]) {
    // What was asked for before something was written is older than that.
    const news = new Map(changed.filter(({ id, revision }) => revision >= (byId.value.get(id)?.revision ?? 0)).map(item => [item.id, item]))
    const known = new Set(items.value.map(({ id }) => id))
    items.value = [...items.value.map(item => news.get(item.id) ?? item), ...changed.filter(({ id }) => !known.has(id))]
    void meetFiles(changed)
  }

  const isEmpty = (value: Value | null | undefined) => value === null || value === undefined || value === ''
  const cellsOf = (item: EntryItem, cells: Cells): Cells =>
    Object.fromEntries(Object.keys(cells).map(field => [field, item.values[field] ?? null]))

  async function send(changes: CellChange[]) {
    saving.value++
    try {
      for (let at = 0; at < changes.length; at += AT_ONCE) {
        const some = changes.slice(at, at + AT_ONCE).map(change => ({ ...change, revision: byId.value.get(change.id)?.revision ?? 1 }))
        take((await ask(listSchema, `${path()}/entries`, 'PATCH', { changes: some })).items)
      }
    } catch (error) {
      // Somebody else wrote there: what they wrote is shown.
      if (error instanceof ApiProblem && error.status === 409) await load()
      throw error
    } finally {
      saving.value--
      void useCatalogues().load()
    }
  }

  /** Writes cells; can be undone. @throws ApiProblem where a cell cannot be so: nothing is written */
  function change(changes: CellChange[]): Promise<void> {
    return inTurn(async () => {
      const real = changes.flatMap(({ id, values }) => {
        const item = byId.value.get(id)
        if (!item) return []
        const differing = Object.entries(values).filter(
          ([field, value]) => JSON.stringify(isEmpty(value) ? null : value) !== JSON.stringify(item.values[field] ?? null),
        )
        return differing.length ? [{ id, values: Object.fromEntries(differing) }] : []
      })
      if (!real.length) return
      const before = real.map(({ id, values }) => ({ id, values: cellsOf(byId.value.get(id)!, values) }))
      await send(real)
      past.value = [...past.value.slice(-MOST_STEPS + 1), { before, after: real }]
      future.value = []
    })
  }

  async function step(from: typeof past, to: typeof past, which: keyof Step) {
    await inTurn(async () => {
      const done = from.value.at(-1)
      if (!done) return
      await send(done[which].filter(({ id }) => byId.value.has(id)))
      from.value = from.value.slice(0, -1)
      to.value = [...to.value, done]
    }).catch(useNotices().refused)
  }
  const undo = () => step(past, future, 'before')
  const redo = () => step(future, past, 'after')

  /** @param copies what they leave empty stays so, whatever new ones begin with */
  function create(all: Values[], copies = false): Promise<EntryItem[]> {
    return inTurn(async () => {
      const made = (await ask(listSchema, `${path()}/entries`, 'POST', { entries: all, copies })).items
      take(made)
      await useCatalogues().load()
      return made
    })
  }

  /** Puts entries in the bin; asks first where something on a page leads to them. */
  async function remove(ids: string[]) {
    const binThem = (despite: boolean) => tell(`${path()}/entries/remove`, 'POST', { ids, despite })
    try {
      await binThem(false)
    } catch (error) {
      if (!(error instanceof ApiProblem) || !Array.isArray(error.extra.pages)) throw error
      const sure = await useAsking().ask({
        question: ids.length === 1 ? 'Put it in the bin all the same?' : 'Put them in the bin all the same?',
        detail: wordsOf(error),
        yes: 'Put it in the bin',
        no: 'Keep it',
      })
      if (!sure) return
      await binThem(true)
    }
    const gone = new Set(ids)
    items.value = items.value.filter(({ id }) => !gone.has(id))
    await useCatalogues().load()
    useNotices().say(`${counted(ids.length, 'entry', 'entries')} in the bin.`, { action: { label: 'Undo', run: () => restore(ids) } })
  }

  async function restore(ids: string[]) {
    await tell(`${path()}/entries/restore`, 'POST', { ids })
    await Promise.all([load(), loadBin(), useCatalogues().load()])
  }

  async function loadBin() {
    const { items: those, fields } = await ask(binSchema, `${path()}/bin`)
    binned.value = those
    binnedFields.value = fields
  }

  async function unpublish(ids: string[]) {
    await tell(`${path()}/entries/unpublish`, 'POST', { ids })
    await Promise.all([load(), useCatalogues().load()])
  }

  async function moveTo(id: string, slug: string) {
    take([await ask(entryItemSchema, `/entries/${id}/slug`, 'PUT', { slug })])
  }

  const placesOf = async (id: string): Promise<EntryPlace[]> => (await ask(placesSchema, `/entries/${id}/places`)).items
  const versionsOf = async (id: string): Promise<EntryVersion[]> => (await ask(versionsSchema, `/entries/${id}/versions`)).items

  /** Writes an entry as it was once live; what has no field any more stays out. */
  function writeAgain(id: string, { values }: EntryVersion): Promise<void> {
    const fields = useCatalogues().byId.get(catalogue.value ?? '')?.fields ?? []
    return change([{ id, values: Object.fromEntries(fields.map(field => [field.id, values[field.id] ?? null])) }])
  }

  async function order(ids: string[]) {
    const place = new Map(ids.map((id, at) => [id, at]))
    items.value = [...items.value].sort((a, b) => place.get(a.id)! - place.get(b.id)!)
    await tell(`${path()}/entries/order`, 'PUT', { ids })
  }

  /** Which entry each of some files belongs to. */
  const match = async (field: string, files: string[]): Promise<Matched[]> =>
    (await ask(matchesSchema, `${path()}/match`, 'POST', { field, files })).items

  return {
    catalogue,
    items,
    loaded,
    binned,
    binnedFields,
    byId,
    saving,
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => future.value.length > 0),
    open,
    load,
    change,
    undo,
    redo,
    create,
    remove,
    restore,
    loadBin,
    unpublish,
    moveTo,
    placesOf,
    versionsOf,
    writeAgain,
    order,
    match,
  }
})
