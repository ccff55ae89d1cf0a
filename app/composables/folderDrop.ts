import { ref } from 'vue'
import { TOP } from '~~/core/folders/folderItem'
import { carriesFiles, dragged, droppedFiles, droppedThings } from './drag'

/** Lets folders take what is dropped on them: files of the computer come in there, things of the library move there. */
export function useFolderDrop() {
  const folders = useFolders()
  const selection = useSelection()
  const uploads = useUploads()
  /** the folder something is held over; "top" for the top of the library */
  const over = ref<string>()

  /** Whether what is dragged would come to lie in itself. */
  const loops = (id: string | null) => !!dragged.value?.folders.some(folder => folders.tree.wouldLoop(folder, id))

  async function drop(event: DragEvent, id: string | null) {
    over.value = undefined
    if (!carriesFiles(event, { ours: true })) return
    event.preventDefault()
    event.stopPropagation()
    const things = droppedThings(event)
    if (!things) return uploads.bring(await droppedFiles(event), id)
    // With Ctrl held a copy is made, as on every desktop.
    await selection.attempt(() => (event.ctrlKey ? selection.copy(things, id) : selection.move(things, id)))
  }

  const dropOn = (id: string | null) => ({
    dragover(event: DragEvent) {
      if (!carriesFiles(event, { ours: true }) || loops(id)) return
      event.preventDefault()
      event.stopPropagation()
      if (event.dataTransfer) event.dataTransfer.dropEffect = dragged.value && !event.ctrlKey ? 'move' : 'copy'
      over.value = id ?? TOP
    },
    dragleave: () => (over.value = undefined),
    drop: (event: DragEvent) => drop(event, id),
  })

  return { over, dropOn }
}
