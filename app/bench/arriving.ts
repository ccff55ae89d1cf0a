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

  /** Those of some files that the library has already, where the owner would rather use them; by their place among the given ones. */
  async function twinsIn(files: File[]): Promise<Map<number, FileItem>> {
    // Whether it is there already only spares the sending: what cannot be asked is sent.
    const found = await Promise.all(files.map(file => twinOf(file).catch(() => undefined)))
    const twins = new Map(found.flatMap((twin, index) => (twin ? [[index, twin] as const] : [])))
    const [twin] = twins.values()
    if (!twin) return twins
    const alone = files.length === 1
    const use = await useAsking().ask({
      question: alone ? `The library has this file: “${twin.title}”` : `The library has ${twins.size} of these ${files.length} files`,
      detail: alone
        ? 'Byte for byte. The button can lead to that one, so that it follows its next editions.'
        : 'Byte for byte. Their buttons can lead to those, so that they follow their next editions.',
      yes: alone ? 'Use the one you have' : 'Use those you have',
      no: alone ? 'Put it in once more' : 'Put them in once more',
    })
    if (!use) return new Map()
    useLibrary().learn([...twins.values()])
    return twins
  }

  /** Sends files to their placements; what the library has already can be used instead. */
  const sendAll = (pairs: { placement: string; file: File }[]) =>
    uploads.add(
      pairs.map(({ file }) => ({ file, path: file.name })),
      {
        placements: pairs.map(({ placement }) => placement),
        instead: twinsIn(pairs.map(({ file }) => file)),
        done: (item, { file }) => placer.give(pageId, pairs.find(pair => pair.file === file)!.placement, targetOf(item)),
      },
    )
  const send = (placement: string, file: File) => sendAll([{ placement, file }])

  /** A button for each. */
  function buttons(files: File[], position?: number) {
    const pairs = files.map((file, index) => {
      const at = position === undefined ? undefined : position + index
      return { placement: insertButton(editor.value!, null, titleFromFileName(file.name), at).placement, file }
    })
    sendAll(pairs)
    editor.value!.view.focus()
  }

  /** The words become a link. */
  function link(file: File | undefined, from: number, to: number) {
    if (file) send(linkWords(editor.value!, null, from, to), file)
  }

  return { send, buttons, link }
}
