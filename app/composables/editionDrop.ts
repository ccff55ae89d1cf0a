import { ref } from 'vue'
import type { FileItem } from '~~/core/files/item'
import { carriesFiles, droppedFiles } from './drag'

/** Lets a file take a file of the computer that is dropped on it: as its next edition. */
export function useEditionDrop(file: () => FileItem) {
  const editions = useEditions()
  const uploads = useUploads()
  const over = ref(false)

  const takes = {
    dragover(event: DragEvent) {
      if (!carriesFiles(event, { ours: false })) return
      event.preventDefault()
      event.stopPropagation()
      if (event.dataTransfer) event.dataTransfer.dropEffect = 'copy'
      over.value = true
    },
    dragleave: () => over.value = false,
    async drop(event: DragEvent) {
      over.value = false
      if (!carriesFiles(event, { ours: false })) return
      event.preventDefault()
      event.stopPropagation()
      // The row may show another file by the time the files are read.
      const target = file()
      const files = await droppedFiles(event)
      // Several cannot all be the next one: they come in beside it.
      if (files.length === 1) editions.bring(target, files[0]!)
      else await uploads.bring(files, target.folder)
    },
  }
  return { over, takes }
}
