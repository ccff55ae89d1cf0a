import type { EditorView } from '@tiptap/pm/view'

/** Where something dragged over the page would go: between two blocks, or onto the selected words. */
export type Spot =
  | { kind: 'between', position: number, /** pixels from the top of the page's text */ top: number }
  | { kind: 'words', from: number, to: number }

/** The spot for a pointer at these client coordinates. */
export function spotAt(view: EditorView, x: number, y: number): Spot {
  const { from, to, empty } = view.state.selection
  const under = view.posAtCoords({ left: x, top: y })?.pos
  if (!empty && 'text' in (view.state.selection.$from.nodeAfter ?? {}) && under !== undefined && under >= from && under <= to) {
    return { kind: 'words', from, to }
  }
  const origin = view.dom.getBoundingClientRect().top
  let best = { distance: Infinity, position: 0, top: 0 }
  const consider = (edge: number, position: number) => {
    const distance = Math.abs(edge - y)
    if (distance < best.distance) best = { distance, position, top: edge - origin }
  }
  let lower: number | undefined
  view.state.doc.forEach((node, offset) => {
    const box = (view.nodeDOM(offset) as HTMLElement | null)?.getBoundingClientRect()
    if (!box) return
    // Between two blocks the mark stands in the middle of their gap.
    consider(lower === undefined ? box.top - 4 : (lower + box.top) / 2, offset)
    lower = box.bottom
    consider(box.bottom + 4, offset + node.nodeSize)
  })
  return { kind: 'between', position: best.position, top: best.top }
}
