import { useEditor, type Editor } from '@tiptap/vue-3'
import { NodeSelection } from '@tiptap/pm/state'
import { documentOf, duplicateBlock } from '~/editor/commands'
import { pageExtensions } from '~/editor/extensions'
import { moveBlock } from '~/editor/parts'

interface WritingOptions {
  /** "/" was typed where a word could begin */
  onSlash: (position: number) => void
  /** Enter on a selected block */
  onEnter: () => void
  /** whether what was pasted is taken */
  onPaste: (clipboard: DataTransfer) => boolean
  /** the owner did something, or what is on the page changed */
  onTransaction: (editor: Editor, byOwner: boolean) => void
}

/** What the desk drags itself comes through its own way, not through the editor's. */
const comesOtherwise = (event: DragEvent) =>
  [...(event.dataTransfer?.types ?? [])].some(type => type === 'Files' || type.startsWith('application/'))

/** The editor of the open page; what is written in it goes into the page's draft. */
export function useWriting({ onSlash, onEnter, onPaste, onTransaction }: WritingOptions) {
  const page = usePage()
  const editor = useEditor({
    extensions: pageExtensions,
    // Not before the draft is here: what is written would be lost when that arrives.
    editable: false,
    editorProps: {
      attributes: { 'class': 'tr-page', 'role': 'textbox', 'aria-multiline': 'true', 'aria-label': 'The page' },
      handleTextInput(view, from, _to, text) {
        if (text !== '/') return false
        const { $from } = view.state.selection
        const before = $from.parent.textBetween(0, $from.parentOffset, undefined, ' ')
        // A slash inside a word, as in "and/or", is a slash.
        if (before && !/\s$/.test(before)) return false
        onSlash(from)
        return true
      },
      handleKeyDown(view, event) {
        const block = view.state.selection instanceof NodeSelection ? view.state.selection.node : undefined
        const control = event.ctrlKey || event.metaKey
        if (block && event.key === 'Enter' && !control) {
          onEnter()
          return true
        }
        if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
          return moveBlock(editor.value!, event.key === 'ArrowUp' ? -1 : 1)
        if (control && event.key === 'd' && block?.attrs.placement) {
          duplicateBlock(editor.value!, block.attrs.placement)
          event.preventDefault()
          return true
        }
        return false
      },
      handleDrop: (_view, event, _slice, moved) => !moved && comesOtherwise(event),
      handlePaste: (_view, event) => !!event.clipboardData && onPaste(event.clipboardData),
    },
    onUpdate: ({ editor: current }) => page.change(documentOf(current as Editor)),
    onTransaction: ({ editor: current, transaction }) => {
      // Not where only the focus changes: the margin would move away from under the mouse that just went to it.
      if (!transaction.docChanged && !transaction.selectionSet) return
      // Opening a page, or an upload that arrives, is nothing the owner did here.
      onTransaction(current as Editor, transaction.getMeta('addToHistory') !== false)
    },
  })
  return editor
}
