import type { FileItem } from '~~/core/files/fileItem'
import type { Selection } from '~~/core/files/selection'
import { addToBundle } from './bundle'
import { useDropOn } from './dropOn'
import { counted } from './format'

/** Lets a bundle's row take what is dropped on it: it goes into the bundle. */
export function useBundleDrop(bundle: () => FileItem) {
  const selection = useSelection()
  const uploads = useUploads()
  const library = useLibrary()

  const add = ({ id, title }: FileItem, things: Selection) =>
    selection.attempt(async () => {
      const { total } = await addToBundle(id, things)
      await library.refresh()
      useNotices().say(`Put into “${title}”: ${counted(total, 'file')} ${total === 1 ? 'is' : 'are'} in it now.`, {
        tone: 'works',
        action: { label: 'Open it', run: () => navigateTo(`/desk/files/${id}`) },
      })
    })

  return useDropOn(true, async ({ things, files }) => {
    // The row may show another file by the time the answer is here.
    const target = bundle()
    if (things) await add(target, things)
    else await uploads.bring((await files) ?? [], target.folder, item => add(target, { files: [item.id], folders: [] }))
  })
}
