import type { Node } from '@tiptap/pm/model'
import { TextSelection } from '@tiptap/pm/state'
import type { EditorView } from '@tiptap/pm/view'

/** Where a line or box is drawn on the page; pixels from the top left of its text. */
export interface Mark {
  top: number
  left: number
  width: number
  height: number
}

/** Where something dragged over the page would go: between two blocks, onto the selected words, or onto a button. */
export type Spot =
  | { kind: 'between'; position: number; mark: Mark }
  | { kind: 'words'; from: number; to: number }
  | { kind: 'button'; placement: string; mark: Mark }

/** Pixels at the side of a button in a row that mean "beside it". */
const SIDE = 16

interface Holder {
  node: Node
  /** of its content */ start: number
  box: DOMRect
  across: boolean
}

const holds = ({ left, right, top, bottom }: DOMRect, x: number, y: number) => x >= left && x <= right && y >= top && y <= bottom
const boxOf = (view: EditorView, position: number) => (view.nodeDOM(position) as HTMLElement | null)?.getBoundingClientRect?.()

/** The inmost thing that holds blocks under the pointer. */
function holderAt(view: EditorView, x: number, y: number): Holder {
  let found: Holder = { node: view.state.doc, start: 0, box: view.dom.getBoundingClientRect(), across: false }
  for (;;) {
    let inner: Holder | undefined
    found.node.forEach((node, offset) => {
      const position = found.start + offset
      if (!['section', 'columns', 'column', 'buttonRow'].includes(node.type.name)) return
      const box = boxOf(view, position)
      if (box && holds(box, x, y)) inner = { node, start: position + 1, box, across: node.type.name === 'buttonRow' }
    })
    // Between two columns is no place for a block: the place is before or behind all of them.
    if (!inner || (inner.node.type.name === 'columns' && !columnUnder(view, inner, x, y))) return found
    found = inner
  }
}

function columnUnder(view: EditorView, { node, start }: Holder, x: number, y: number): boolean {
  let under = false
  node.forEach((_column, offset) => {
    const box = boxOf(view, start + offset)
    under ||= !!box && holds(box, x, y)
  })
  return under
}

/** The button or card under the pointer; in a row a button's sides mean the places beside it. */
function buttonAt(view: EditorView, x: number, y: number, origin: DOMRect): Spot | undefined {
  const element = document
    .elementsFromPoint(x, y)
    .find(each => (each.classList.contains('tr-button') || each.classList.contains('tr-card')) && view.dom.contains(each))
  const placement = element?.closest<HTMLElement>('.button-view')?.dataset.placement
  if (!element || !placement) return undefined
  const box = element.getBoundingClientRect()
  const side = element.closest('.tr-row') ? SIDE : 0
  if (x < box.left + side || x > box.right - side) return undefined
  return {
    kind: 'button',
    placement,
    mark: { top: box.top - origin.top - 4, left: box.left - origin.left - 4, width: box.width + 8, height: box.height + 8 },
  }
}

/** The block at the height of the pointer in what it lies in, and where it stands; pixels from the top left of the text. */
export function blockUnder(
  view: EditorView,
  x: number,
  y: number,
): { position: number; top: number; left: number; height: number } | undefined {
  const text = view.dom.getBoundingClientRect()
  // Beside the text, where the handle is, counts as on it.
  const { node, start, across } = holderAt(view, Math.min(Math.max(x, text.left + 1), text.right - 1), y)
  let found: ReturnType<typeof blockUnder>
  node.forEach((_child, offset) => {
    const box = boxOf(view, start + offset)
    if (box && y >= box.top - 4 && y <= box.bottom + 4 && (!across || (x >= box.left - 26 && x <= box.right)))
      found = { position: start + offset, top: box.top - text.top, left: box.left - text.left, height: box.height }
  })
  return found
}

/** The spot for a pointer at these client coordinates; a block that is moved only goes between others. */
export function spotAt(view: EditorView, x: number, y: number, { between = false } = {}): Spot {
  const { selection } = view.state
  const { from, to, empty } = selection
  const under = view.posAtCoords({ left: x, top: y })?.pos
  if (!between && !empty && selection instanceof TextSelection && under !== undefined && under >= from && under <= to) {
    return { kind: 'words', from, to }
  }
  const origin = view.dom.getBoundingClientRect()
  const button = between ? undefined : buttonAt(view, x, y, origin)
  if (button) return button

  const { node, start, box: holder, across } = holderAt(view, x, y)
  const inset = node.type.name === 'doc' ? -10 : 0
  const markAt = (edge: number, box: DOMRect): Mark =>
    across
      ? { top: box.top - origin.top, left: edge - origin.left, width: 3, height: box.height }
      : { top: edge - origin.top, left: holder.left - origin.left + inset, width: holder.width - 2 * inset, height: 3 }
  let best = { distance: Infinity, position: start, mark: markAt(across ? holder.left + 4 : holder.top + 4, holder) }
  const consider = (edge: number, position: number, box: DOMRect) => {
    const distance = Math.abs(edge - (across ? x : y))
    if (distance < best.distance) best = { distance, position, mark: markAt(edge, box) }
  }
  let before: DOMRect | undefined
  node.forEach((child, offset) => {
    const box = boxOf(view, start + offset)
    if (!box) return
    const [low, high] = across ? [box.left, box.right] : [box.top, box.bottom]
    // Between two blocks the mark stands in the middle of their gap.
    const last = before && (across ? before.right : before.bottom)
    consider(last === undefined || last > low ? low - 4 : (last + low) / 2, start + offset, box)
    before = box
    consider(high + 4, start + offset + child.nodeSize, box)
  })
  return { kind: 'between', position: best.position, mark: best.mark }
}
