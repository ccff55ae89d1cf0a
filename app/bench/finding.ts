import { ref, type Ref } from 'vue'
import type { Editor } from '@tiptap/vue-3'
import type { FileItem } from '~~/core/files/fileItem'
import type { Target } from '~~/core/page/schema'
import type { Addable } from '~/editor/add'
import { insertButton, linkWords } from '~/editor/commands'
import { targetOf, type useArriving } from './arriving'

/** Pixels a finder is wide, with a little room. */
const WIDTH = 356

interface FindingOptions {
  editor: Ref<Editor | undefined>
  sheet: Ref<HTMLElement | undefined>
  arriving: ReturnType<typeof useArriving>
}

/** The finder at the caret: places a file or a part of a page there, or makes the selected words a link. */
export function useFinding({ editor, sheet, arriving }: FindingOptions) {
  /** an open finder, and what it is for; pixels from the top left of the sheet */
  const finder = ref<{ top: number; left: number; purpose: 'place' | 'link' }>()

  function open(purpose: 'place' | 'link', position = editor.value!.state.selection.to) {
    const box = sheet.value!.getBoundingClientRect()
    const caret = editor.value!.view.coordsAtPos(position)
    finder.value = { purpose, top: caret.bottom - box.top + 4, left: Math.max(8, Math.min(caret.left - box.left, box.width - WIDTH)) }
  }

  /** Ends the finder; tells what it was for. The view is focused itself: TipTap's command waits for a frame, and loses the next key. */
  function close() {
    const purpose = finder.value?.purpose
    finder.value = undefined
    editor.value?.view.focus()
    return purpose
  }

  function lead(target: Target, title: string) {
    const { from, to } = editor.value!.state.selection
    if (close() === 'link') linkWords(editor.value!, target, from, to)
    else insertButton(editor.value!, target, title)
    editor.value!.view.focus()
  }

  function add(part: Addable) {
    finder.value = undefined
    part.add(editor.value!)
    editor.value!.view.focus()
  }

  async function chooseFromComputer() {
    const { from, to } = editor.value!.state.selection
    const isLink = close() === 'link'
    const files = await chooseFiles({ multiple: !isLink })
    if (isLink) arriving.link(files[0], from, to)
    else arriving.buttons(files)
    editor.value!.view.focus()
  }

  return { finder, open, close, lead, choose: (file: FileItem) => lead(targetOf(file), file.title), add, chooseFromComputer }
}
