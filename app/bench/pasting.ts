import type { Editor } from '@tiptap/vue-3'
import type { Ref } from 'vue'
import { isPlainlyAddress, recognise } from '~~/core/page/recognise'
import { changePlacement, pasteLink } from '~/editor/commands'
import type { useArriving } from './arriving'
import { arePictures, type useDropping } from './dropping'
import type { Selected } from './margin'

interface PastingOptions {
  editor: Ref<Editor | undefined>
  selected: Ref<Selected | undefined>
  arriving: ReturnType<typeof useArriving>
  dropping: ReturnType<typeof useDropping>
}

/** What is pasted on the page besides words: files of the computer, pictures and addresses. */
export function usePasting({ editor, selected, arriving, dropping }: PastingOptions) {
  const notices = useNotices()

  /** An address is where the selected button leads; else a link on the selected words, or on what it leads to is called. */
  function pasteAddress(text: string): boolean {
    const current = editor.value!
    if (/\s/.test(text.trim()) || !isPlainlyAddress(text) || !recognise(text, [window.location.host])) return false
    const { kind, attrs } = selected.value ?? {}
    const button = kind === 'button' || kind === 'card' ? attrs!.placement : undefined
    void ledBy(text)
      .then(led => {
        if (button && led) changePlacement(current, button, { target: led.target })
        else pasteLink(current, led, text.trim())
        if (led?.target.kind === 'file' || led?.target.kind === 'page')
          notices.say(`That is “${led.title}” of this site: the link follows it wherever it moves.`, {})
      })
      .catch(notices.refused)
    return true
  }

  return function paste(clipboard: DataTransfer): boolean {
    const files = [...clipboard.files]
    if (!files.length) return pasteAddress(clipboard.getData('text/plain'))
    // Words of a document may bring pictures of themselves.
    if (clipboard.types.includes('text/html')) return false
    if (files.length === 1 && arePictures([], files)) dropping.showPicture(files[0]!, editor.value!.state.selection.to)
    else arriving.buttons(files)
    return true
  }
}
