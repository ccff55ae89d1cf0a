import { computed, ref, type Ref } from 'vue'
import type { DragSource, DropTarget } from '~/composables/carried'
import type { useLineFocus } from './lineFocus'
import type { Rows } from './rows'

interface LineDragOptions {
  rows: Ref<Rows>
  isTree: Ref<boolean>
  focus: ReturnType<typeof useLineFocus>
}

/** Dragging lines of the library: onto a page, into a folder, and, in a folder with its own order, to another place, as keys do. */
export function useLineDrag({ rows, isTree, focus }: LineDragOptions) {
  const listing = useListing()
  const selection = useSelection()
  const library = useLibrary()

  const dragOf =
    (kind: 'files' | 'folders', id: string): DragSource =>
    () => {
      const things = selection.around(kind, id)
      library.learn(
        rows.value.segments.flatMap(segment =>
          'window' in segment ? segment.window.held().filter(file => things.files.includes(file.id)) : [],
        ),
      )
      return { carried: { things }, words: things.files.length + things.folders.length > 1 ? wordsForSelection(things) : undefined }
    }

  /** the line something would go in front of */
  const dropBefore = ref<number>()
  const ordered = computed(
    () => listing.order === 'own' && !listing.filtered && !listing.bin && !isTree.value && listing.folder !== null && !rows.value.perRow,
  )

  const takesLine = (index: number): DropTarget => ({
    takes: ({ things, outside }) => ordered.value && (!!things?.files.length || outside === 'things'),
    moves: () => true,
    over: (_carried, { side }) => (dropBefore.value = side === 'before' ? index : index + 1),
    out: () => (dropBefore.value = undefined),
    drop({ things }, { side }) {
      const before = rows.value.fileAt(side === 'before' ? index : index + 1)
      if (things?.files.length) return selection.attempt(() => selection.move(things, listing.folder, before?.id))
    },
  })

  /** By key: one place up or down in the folder's own order. */
  async function moveBy(step: -1 | 1) {
    const { active, within, focusLine } = focus
    const file = rows.value.fileAt(active.value)
    if (!ordered.value || !file) return
    const before = rows.value.fileAt(step < 0 ? active.value - 1 : active.value + 2)
    if (step < 0 && !before) return
    await selection.attempt(() => selection.move({ files: [file.id], folders: [] }, listing.folder, before?.id))
    await focusLine(within(active.value + step))
  }

  return { dragOf, takesLine, dropBefore, ordered, moveBy }
}
