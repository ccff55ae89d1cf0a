import type { FileItem } from '~~/core/files/fileItem'
import { useDropOn } from './dropOn'

/** Lets a file take a file of the computer that is dropped on it: as its next edition. */
export function useEditionDrop(file: () => FileItem) {
  const editions = useEditions()
  const uploads = useUploads()
  return useDropOn(false, async ({ files }) => {
    // The row may show another file by the time the files are read.
    const target = file()
    const brought = (await files) ?? []
    // Several cannot all be the next one: they come in beside it.
    if (brought.length === 1) editions.bring(target, brought[0]!)
    else await uploads.bring(brought, target.folder)
  })
}
