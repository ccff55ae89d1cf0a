import { z } from 'zod'
import { shallowRef, watch, type Ref } from 'vue'
import { fileItemSchema, type FileItem } from '~~/core/files/fileItem'
import type { ShelfSource } from '~~/core/page/schema'
import { shelfQuery } from '~~/core/page/shelf'
import { useFolders } from '~/stores/folders'
import { useLibrary } from '~/stores/library'
import { ask, wordsOf } from './api'

const listedSchema = z.object({ items: z.array(fileItemSchema), total: z.number() })

/** A shelf of a folder as it starts out: in the order the owner gave the folder, if any. */
export const shelfOfFolder = (id: string): ShelfSource => ({
  kind: 'folder',
  id,
  order: useFolders().tree.get(id)?.ownOrder ? 'own' : 'title',
  below: 'no',
})

/** The files a shelf would list now, and how many there are. */
export async function filesOnShelf(of: ShelfSource): Promise<{ files: FileItem[]; total: number }> {
  const library = useLibrary()
  if (of.kind === 'files') {
    const files = (await library.meet(of.ids)).filter(file => !file.deleted)
    return { files, total: files.length }
  }
  const { items: files, total } = await ask(
    listedSchema,
    `/files?${new URLSearchParams(Object.entries(shelfQuery(of)).map(([name, value]) => [name, String(value)]))}`,
  )
  library.learn(files)
  return { files, total }
}

/** The files a shelf lists as they are now, and why it would show visitors nothing. */
export function useShelf(source: Ref<ShelfSource | null>) {
  const library = useLibrary()
  const folders = useFolders()
  const files = shallowRef<FileItem[]>([])
  const total = shallowRef(0)
  const fault = shallowRef('')

  function faultOf(of: ShelfSource, found: FileItem[]): string {
    if (of.kind === 'files' && found.length < of.ids.length)
      return `${counted(of.ids.length - found.length, 'file')} of this shelf ${of.ids.length - found.length === 1 ? 'is' : 'are'} in the bin`
    if (found.length) return ''
    return of.kind === 'folder' ? `“${folders.nameOf(of.id)}” holds no file: visitors see nothing here` : 'No file on this shelf yet'
  }

  watch(
    [source, () => library.changes],
    async (_now, _before, onCleanup) => {
      let late = false
      onCleanup(() => (late = true))
      const of = source.value
      files.value = of ? files.value : []
      if (of?.kind === 'folder' && folders.loaded && !folders.tree.get(of.id)) {
        files.value = []
        fault.value = 'The folder this shelf lists is gone'
        return
      }
      if (!of) {
        fault.value = 'Nothing on this shelf yet'
        return
      }
      try {
        const found = await filesOnShelf(of)
        // Meanwhile it may list something else.
        if (late) return
        files.value = found.files
        total.value = found.total
        fault.value = faultOf(of, found.files)
      } catch (error) {
        if (!late) fault.value = wordsOf(error)
      }
    },
    { immediate: true },
  )

  return { files, total, fault }
}
