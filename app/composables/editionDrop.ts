import type { FileItem } from '~~/core/files/fileItem'
import { droppedFiles } from './drag'
import { useDropOn } from './dropOn'

/** Lets a file take a file of the computer that is dropped on it: as its next edition. */
export function useEditionDrop(file: () => FileItem) {
  const editions = useEditions()
  const uploads = useUploads()
  return useDropOn(false, async event => {
    // The row may show another file by the time the files are read.
    const target = file()
    const files = await droppedFiles(event)
    // Several cannot all be the next one: they come in beside it.
    if (files.length === 1) editions.bring(target, files[0]!)
    else await uploads.bring(files, target.folder)
  })
}
