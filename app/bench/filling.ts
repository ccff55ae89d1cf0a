import type { Editor } from '@tiptap/vue-3'
import { shallowRef, type Ref } from 'vue'
import { MOST_IN_ROW } from '~~/core/page/schema'
import { fillRow } from '~/editor/commands'
import type { Part } from '~/editor/parts'
import { targetOf } from './arriving'

/** Fills a row with a button for each file of a folder. */
export function useFilling(editor: Ref<Editor | undefined>) {
  const notices = useNotices()
  /** the row that a folder is chosen for */
  const row = shallowRef<Part>()

  async function fill(folder: string) {
    const filled = row.value!
    row.value = undefined
    try {
      const { files } = await filesOnShelf(shelfOfFolder(folder))
      const placed = fillRow(
        editor.value!,
        filled,
        files.map(file => ({ target: targetOf(file), title: file.title })),
      )
      const problem = problemOf(placed, files.length)
      if (problem) notices.say(problem, { tone: 'attention' })
    } catch (error) {
      notices.refused(error)
    }
    editor.value!.view.focus()
  }

  return { row, fill }
}

function problemOf(placed: number, of: number): string | undefined {
  if (!of) return 'That folder holds no file.'
  if (placed >= of) return undefined
  return placed
    ? `The first ${counted(placed, 'file')} of ${of} found room: a row holds ${MOST_IN_ROW} buttons.`
    : `This row is full: it holds ${MOST_IN_ROW} buttons.`
}
