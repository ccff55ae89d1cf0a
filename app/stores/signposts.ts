import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { fileItemSchema, useSchema, type Use } from '~~/core/files/fileItem'
import { signpostItemSchema, type SignpostChange, type SignpostItem } from '~~/core/signposts/signpostItem'
import { ask, heldBy, tell } from '~/composables/api'
import { useLibrary } from './library'
import { useNotices } from './notices'

const listSchema = z.object({ items: z.array(signpostItemSchema), files: z.array(fileItemSchema) })
const placesSchema = z.object({ places: z.array(useSchema) })

/** The signposts of the site, and what the owner does with them. */
export const useSignposts = defineStore('signposts', () => {
  const items = ref<SignpostItem[]>([])
  const loaded = ref(false)
  const byId = computed(() => new Map(items.value.map(item => [item.id, item])))

  async function load() {
    const answer = await ask(listSchema, '/signposts')
    useLibrary().learn(answer.files)
    items.value = answer.items
    loaded.value = true
  }
  // What signposts point at changes with the library.
  useLibrary().refreshWith(load)

  async function create(title: string, file: string | null): Promise<SignpostItem> {
    const made = await ask(signpostItemSchema, '/signposts', 'POST', { title, file })
    await useLibrary().refresh()
    return made
  }

  async function change(id: string, changed: SignpostChange) {
    await tell(`/signposts/${id}`, 'PATCH', changed)
    await load()
  }

  /** Where a signpost is used: what changes when it is turned. */
  const places = async (id: string) => ofItself((await ask(placesSchema, `/signposts/${id}/places`)).places)
  /** Beside the signpost its own name says nothing. */
  const ofItself = (uses: Use[]) => uses.map(use => ({ ...use, by: null }))

  /** Points it at another file, or at nothing; can be taken back from the notice. */
  async function turn({ id, title, file: before }: SignpostItem, file: string | null) {
    const point = async (at: string | null) => {
      await tell(`/signposts/${id}/turn`, 'POST', { file: at })
      await useLibrary().refresh()
    }
    await point(file)
    const name = file === null ? undefined : useLibrary().known.get(file)?.title
    useNotices().say(
      name === undefined ? `“${title}” points at nothing now.` : `“${title}” points at “${name}” now, wherever it is used.`,
      { tone: 'works', action: { label: 'Undo', run: () => point(before) } },
    )
  }

  /** Takes a signpost down; gives the places that lead to it where they hold that back. */
  async function remove(id: string, way?: 'straight' | 'off' | 'despite'): Promise<Use[]> {
    const places = await heldBy(() => tell(`/signposts/${id}${way ? `?way=${way}` : ''}`, 'DELETE'))
    if (!places.length) await useLibrary().refresh()
    return ofItself(places)
  }

  return { items, loaded, byId, load, create, change, places, turn, remove }
})
