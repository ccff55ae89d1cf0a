import { z } from 'zod'
import { shallowRef, watch, type Ref } from 'vue'
import { fileItemSchema, type FileItem } from '~~/core/files/fileItem'
import { arranged } from '~~/core/shelf/arrange'
import { filesListed, flat, type Listing } from '~~/core/shelf/listing'
import { asksForAnything, shelfQuery, type ShelfSource } from '~~/core/shelf/shelfSource'
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
export async function filesOnShelf(of: ShelfSource): Promise<{ files: FileItem[]; pinned: FileItem[]; total: number }> {
  const library = useLibrary()
  const there = async (ids: string[]) => (await library.meet(ids)).filter(file => !file.deleted)
  if (of.kind === 'files') {
    const files = await there(of.ids)
    return { files, pinned: [], total: files.length }
  }
  if (of.kind === 'found' && !asksForAnything(of)) return { files: [], pinned: await there(of.pinned ?? []), total: 0 }
  const query = new URLSearchParams()
  for (const [name, value] of Object.entries(shelfQuery(of, Date.now())))
    for (const each of [value].flat()) query.append(name, String(each))
  const { items: files, total } = await ask(listedSchema, `/files?${query}`)
  library.learn(files)
  return { files, pinned: await there(of.pinned ?? []), total }
}

/** The files a shelf lists as they are now, and why it would show visitors nothing. */
export function useShelf(source: Ref<ShelfSource | null>) {
  const library = useLibrary()
  const folders = useFolders()
  const files = shallowRef<FileItem[]>([])
  const listed = shallowRef<Listing<FileItem>>(flat([]))
  const fault = shallowRef('')
  const clear = () => {
    listed.value = flat([])
    files.value = []
  }

  function faultOf(of: ShelfSource, found: FileItem[]): string {
    if (of.kind === 'files' && found.length < of.ids.length)
      return `${counted(of.ids.length - found.length, 'file')} of this shelf ${of.ids.length - found.length === 1 ? 'is' : 'are'} in the bin`
    if (found.length) return ''
    if (of.kind === 'found' && !asksForAnything(of)) return 'It asks for nothing yet: say which files it lists'
    if (of.kind === 'found' || (of.kind === 'folder' && of.within)) return 'No file is like that now: visitors see nothing here'
    return of.kind === 'folder' ? `“${folders.nameOf(of.id)}” holds no file: visitors see nothing here` : 'No file on this shelf yet'
  }

  watch(
    [source, () => library.changes],
    async (_now, _before, onCleanup) => {
      let late = false
      onCleanup(() => (late = true))
      const of = source.value
      if (!of) clear()
      if (of?.kind === 'folder' && folders.loaded && !folders.tree.get(of.id)) {
        clear()
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
        listed.value = of.kind === 'files' ? flat(found.files) : arranged(of, folders.tree, found)
        files.value = filesListed(listed.value)
        fault.value = faultOf(of, files.value)
      } catch (error) {
        if (!late) fault.value = wordsOf(error)
      }
    },
    { immediate: true },
  )

  return { files, listed, fault }
}
