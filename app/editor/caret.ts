import { Extension } from '@tiptap/core'
import { Plugin } from '@tiptap/pm/state'
import type { EditorView } from '@tiptap/pm/view'
import { focusEnd, focusStart } from './commands'

/**
 * Where the caret is, is known before the next key. Browsers tell it by an event of their own (Selection API, "selectionchange", which is
 * queued), and on a machine with other work that comes after the key: what was pressed would go where the caret was, and a selection just
 * made would be lost. From beside a button or a section, browsers do not find to the start and the end.
 */
export const Caret = Extension.create({
  name: 'caret',
  addKeyboardShortcuts() {
    return {
      'Mod-Home': ({ editor }) => (focusStart(editor), editor.commands.scrollIntoView()),
      'Mod-End': ({ editor }) => (focusEnd(editor), editor.commands.scrollIntoView()),
    }
  },
  addProseMirrorPlugins: () => [new Plugin({ props: { handleDOMEvents: { keydown: tell, keyup: tell } } })],
})

function tell(view: EditorView, event: KeyboardEvent): boolean {
  // What is being composed, as in Japanese, is left alone until it is there (UI Events, 5.6).
  if (!event.isComposing) view.dom.ownerDocument.dispatchEvent(new Event('selectionchange'))
  return false
}
