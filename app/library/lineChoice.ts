import type { Virtualizer } from '@tanstack/vue-virtual'
import type { Ref } from 'vue'
import type { useLineFocus } from './lineFocus'
import type { Rows } from './rows'

interface LineChoiceOptions {
  scroller: Ref<HTMLElement | undefined>
  rows: Ref<Rows>
  virtualizer: () => Virtualizer<HTMLElement, Element>
  focus: ReturnType<typeof useLineFocus>
}

/** Choosing lines of the library: by click, with Shift a stretch, with Ctrl one more, by drawing a box, all. */
export function useLineChoice({ scroller, rows, virtualizer, focus }: LineChoiceOptions) {
  const selection = useSelection()
  const { active, anchor, focusLine } = focus

  async function chooseTo(index: number, add: boolean) {
    await selection.attempt(async () =>
      selection.choose(await rows.value.between(Math.min(anchor.value, index), Math.max(anchor.value, index)), { add }),
    )
  }

  function onClick(event: MouseEvent, index: number, kind: 'files' | 'folders', id: string) {
    if ((event.target as HTMLElement).closest('a, button, input')) return
    active.value = index
    // Keys go on from where the mouse was.
    void focusLine(index)
    if (event.shiftKey) return void chooseTo(index, event.ctrlKey || event.metaKey)
    anchor.value = index
    if (event.ctrlKey || event.metaKey) selection.toggle(kind, id)
    else selection.choose({ files: [], folders: [], [kind]: [id] })
  }

  function onToggle(event: MouseEvent, index: number, kind: 'files' | 'folders', id: string) {
    if (event.shiftKey) return void chooseTo(index, true)
    anchor.value = index
    active.value = index
    selection.toggle(kind, id)
  }

  async function chooseAll() {
    await selection.attempt(async () => selection.choose(await rows.value.between(0, rows.value.count - 1)))
  }

  const { box, startSweep } = useSweep(scroller, async (area, add) => {
    if (rows.value.perRow) return selection.choose({ files: tilesIn(scroller.value!, area), folders: [] }, { add })
    const inside = virtualizer()
      .getVirtualItems()
      .filter(line => line.start < area.bottom && line.end > area.top)
    const [first, last] = [inside[0]?.index, inside.at(-1)?.index]
    if (first !== undefined && last !== undefined) selection.choose(await rows.value.between(first, last), { add })
  })

  return { box, startSweep, chooseTo, chooseAll, onClick, onToggle }
}

/** The files whose tiles a box touches. */
function tilesIn(scroller: HTMLElement, area: Area): string[] {
  const origin = scroller.getBoundingClientRect()
  return [...scroller.querySelectorAll<HTMLElement>('[data-file]')]
    .filter(tile => {
      const { left, right, top, bottom } = tile.getBoundingClientRect()
      return (
        left - origin.left < area.right &&
        right - origin.left > area.left &&
        top - origin.top + scroller.scrollTop < area.bottom &&
        bottom - origin.top + scroller.scrollTop > area.top
      )
    })
    .map(tile => tile.dataset.file!)
}
