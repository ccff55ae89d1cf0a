import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { folderItemSchema, binnedFolderSchema, type BinnedFolder, type FolderChange, type FolderItem } from '~~/core/folders/folderItem'
import { Tree } from '~~/core/folders/folderTree'
import { ask, tell } from '~/composables/api'

const listSchema = z.object({ items: z.array(folderItemSchema), binned: z.array(binnedFolderSchema) })

/** The tree of the library's folders. */
export const useFolders = defineStore('folders', () => {
  const tree = shallowRef(new Tree<FolderItem>([]))
  const binned = ref<BinnedFolder[]>([])
  const loaded = ref(false)

  async function load() {
    const answer = await ask(listSchema, '/folders')
    tree.value = new Tree(answer.items)
    binned.value = answer.binned
    loaded.value = true
  }

  /** Files in a folder and in all below it. */
  const filesBelow = computed(() => {
    const counts = new Map<string, number>()
    for (const { id, files } of tree.value.all)
      for (const above of tree.value.pathTo(id)) counts.set(above.id, (counts.get(above.id) ?? 0) + files)
    return counts
  })

  async function create(name: string, parent: string | null): Promise<FolderItem> {
    const folder = await ask(folderItemSchema, '/folders', 'POST', { name, parent })
    await load()
    return folder
  }

  async function change(id: string, changed: FolderChange) {
    await tell(`/folders/${id}`, 'PATCH', changed)
    await load()
  }

  const nameOf = (id: string | null) => (id === null ? 'Library' : (tree.value.get(id)?.name ?? 'a folder that is gone'))

  return { tree, binned, loaded, filesBelow, load, create, change, nameOf }
})
