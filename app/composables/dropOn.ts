import { ref } from 'vue'
import { carriesFiles } from './drag'

/**
 * Lets something take what is dropped on it, before what lies below can: files of the computer, and things of the library where it takes
 * `ours`.
 */
export function useDropOn(ours: boolean, take: (event: DragEvent) => Promise<void>) {
  const over = ref(false)
  const takes = {
    dragover(event: DragEvent) {
      if (!carriesFiles(event, { ours })) return
      event.preventDefault()
      event.stopPropagation()
      if (event.dataTransfer) event.dataTransfer.dropEffect = 'copy'
      over.value = true
    },
    dragleave: () => (over.value = false),
    async drop(event: DragEvent) {
      over.value = false
      if (!carriesFiles(event, { ours })) return
      event.preventDefault()
      event.stopPropagation()
      await take(event)
    },
  }
  return { over, takes }
}
