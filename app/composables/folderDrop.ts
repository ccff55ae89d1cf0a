import { ref } from 'vue'
import { TOP } from '~~/core/folders/folderItem'
import { bringsFiles, type DropTarget } from './carried'

/** Lets folders take what is dropped on them: files of the computer come in there, things of the library move there. */
export function useFolderDrop() {
  const folders = useFolders()
  const selection = useSelection()
  const uploads = useUploads()
  /** the folder something is held over; "top" for the top of the library */
  const over = ref<string>()

  const dropOn = (id: string | null): DropTarget => ({
    // What is dragged cannot come to lie in itself.
    takes: carried => bringsFiles(carried) && !carried.things?.folders.some(folder => folders.tree.wouldLoop(folder, id)),
    moves: ({ things }, ctrl) => !!things && !ctrl,
    over: () => (over.value = id ?? TOP),
    out: () => {
      if (over.value === (id ?? TOP)) over.value = undefined
    },
    async drop({ things, files }, { ctrl }) {
      if (!things) return uploads.bring((await files) ?? [], id)
      // With Ctrl held a copy is made, as on every desktop.
      await selection.attempt(() => (ctrl ? selection.copy(things, id) : selection.move(things, id)))
    },
  })

  return { over, dropOn }
}
