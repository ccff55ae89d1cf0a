import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { fileItemSchema } from '~~/core/files/fileItem'
import { drawnIcon, iconOf, siteIconsSchema, type DrawnIcon, type SiteIcon } from '~~/core/shelf/icons'
import { shelfLookSchema, type NewShelfLook, type ShelfLook } from '~~/core/shelf/shelfLook'
import { targetFacts, type TargetFacts } from '~~/core/page/placeholders'
import { ask, tell } from '~/composables/api'
import { useFolders } from './folders'
import { useLibrary } from './library'

const listSchema = z.object({ items: z.array(shelfLookSchema), icons: siteIconsSchema, files: z.array(fileItemSchema) })
const iconsSchema = z.object({ items: siteIconsSchema })

/** Saved ways of showing files, and the icons that stand for them. */
export const useShelfLooks = defineStore('shelfLooks', () => {
  const items = ref<ShelfLook[]>([])
  const icons = ref<SiteIcon[]>([])
  const byId = computed(() => new Map(items.value.map(look => [look.id, look])))

  async function load(): Promise<void> {
    const { files, ...answer } = await ask(listSchema, '/shelf-looks')
    useLibrary().learn(files)
    ;({ items: items.value, icons: icons.value } = answer)
  }

  async function create(given: NewShelfLook): Promise<ShelfLook> {
    const look = await ask(shelfLookSchema, '/shelf-looks', 'POST', given)
    items.value = [...items.value, look]
    return look
  }

  async function change(id: string, changed: Partial<NewShelfLook>): Promise<void> {
    const look = await ask(shelfLookSchema, `/shelf-looks/${id}`, 'PATCH', changed)
    items.value = items.value.map(each => (each.id === id ? look : each))
  }

  /** Shelves that wear it stay as they look. */
  async function remove(id: string): Promise<void> {
    await tell(`/shelf-looks/${id}`, 'DELETE')
    items.value = items.value.filter(each => each.id !== id)
  }

  async function setIcon(icon: SiteIcon): Promise<void> {
    icons.value = (await ask(iconsSchema, '/icons', 'PUT', icon)).items
  }

  async function removeIcon(of: SiteIcon['of']): Promise<void> {
    icons.value = (await ask(iconsSchema, `/icons?${new URLSearchParams(of)}`, 'DELETE')).items
  }

  /** The icon that stands for a file of the library; undefined for the name of its type. */
  function iconFor(file: TargetFacts): DrawnIcon | undefined {
    const pictureOf = (id: string) => {
      const picture = useLibrary().known.get(id)
      return picture && !picture.deleted ? targetFacts(picture) : undefined
    }
    return drawnIcon(iconOf(file, icons.value, useFolders().tree), pictureOf)
  }

  return { items, icons, byId, load, create, change, remove, setIcon, removeIcon, iconFor }
})
