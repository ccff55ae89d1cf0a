import type { Editor } from '@tiptap/vue-3'
import type { Ref } from 'vue'
import type { FileItem } from '~~/core/files/fileItem'
import { titleFromFileName } from '~~/core/files/fileName'
import type { Target } from '~~/core/page/schema'
import { insertButton, linkWords } from '~/editor/commands'

export const targetOf = (file: FileItem): Target => ({ kind: 'file', id: file.id })

/** Places files of the computer at once; each placement gets its file when that has arrived, wherever it is by then. */
export function useArriving(pageId: string, editor: Ref<Editor | undefined>) {
  const uploads = useUploads()
  const placer = usePlacer()

  const send = (placement: string, file: File) =>
    uploads.add([{ file, path: file.name }], {
      placements: [placement],
      done: item => placer.give(pageId, placement, targetOf(item)),
    })

  /** A button for each. */
  function buttons(files: File[], position?: number) {
    for (const [index, file] of files.entries()) {
      const at = position === undefined ? undefined : position + index
      send(insertButton(editor.value!, null, titleFromFileName(file.name), at).placement, file)
    }
    editor.value!.view.focus()
  }

  /** The words become a link. */
  function link(file: File | undefined, from: number, to: number) {
    if (file) send(linkWords(editor.value!, null, from, to), file)
  }

  return { send, buttons, link }
}
