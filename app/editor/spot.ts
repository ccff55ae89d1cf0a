import type { Node } from '@tiptap/pm/model'
import { TextSelection } from '@tiptap/pm/state'
import type { EditorView } from '@tiptap/pm/view'

/** Where a line or box is drawn over the page; pixels from the top left of the sheet. */
export interface Mark {
  top: number
  left: number
  width: number
  height: number
}

/** Where something dragged over the page would go: between two blocks, onto the selected words, or onto a button. */
export type Spot =
  | { kind: 'between'; position: number; mark: Mark; /** the column or section it is in */ holder?: Mark }
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
/** The sheet that the page lies on, scaled: what is drawn over it is not. */
const originOf = (view: EditorView) => (view.dom.closest('[data-sheet]') ?? view.dom).getBoundingClientRect()
const markOf = (box: DOMRect, origin: DOMRect, around: number): Mark => ({
  top: box.top - origin.top - around,
  left: box.left - origin.left - around,
  width: box.width + 2 * around,
  height: box.height + 2 * around,
})
const boxOf = (view: EditorView, position: number) => (view.nodeDOM(position) as HTMLElement | null)?.getBoundingClientRect?.()

/** The inmost thing that holds blocks under the pointer. */
function holderAt(view: EditorView, x: number, y: number): Holder {
  let found: Holder = { node: view.state.doc, start: 0, box: view.dom.getBoundingClientRect(), across: false }
  for (;;) {
    let inner: Holder | undefined
    found.node.forEach((node, offset) => {
      const position = found.start + offset
      if (!['section', 'columns', 'column', 'fold', 'buttonRow'].includes(node.type.name)) return
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
  return { kind: 'button', placement, mark: markOf(box, origin, 4) }
}

/** A block of the page, and where it stands; pixels from the top left of the sheet. */
export interface Standing {
  position: number
  top: number
  left: number
  height: number
}

/** Pixels beside a block in which its handle is. */
const BESIDE = 24

function blockAtHeight(view: EditorView, x: number, y: number): { standing: Standing; box: DOMRect } | undefined {
  const origin = originOf(view)
  const { node, start, across } = holderAt(view, x, y)
  let found: ReturnType<typeof blockAtHeight>
  node.forEach((child, offset) => {
    // What a fold-out asks stays its first line.
    if (child.type.name === 'foldTitle') return
    const box = boxOf(view, start + offset)
    if (box && y >= box.top - 4 && y <= box.bottom + 4 && (!across || (x >= box.left - 26 && x <= box.right)))
      found = {
        standing: { position: start + offset, top: box.top - origin.top, left: box.left - origin.left, height: box.height },
        box,
      }
  })
  return found
}

/** The block at the height of the pointer in what it lies in; beside a block, where its handle is, that one. */
export function blockUnder(view: EditorView, x: number, y: number): Standing | undefined {
  const beside = blockAtHeight(view, x + BESIDE, y)
  if (beside && x < beside.box.left && x >= beside.box.left - BESIDE) return beside.standing
  return blockAtHeight(view, x, y)?.standing
}

/** The spot for a pointer at these client coordinates; a block that is moved only goes between others. */
export function spotAt(view: EditorView, x: number, y: number, { between = false } = {}): Spot {
  const { selection } = view.state
  const { from, to, empty } = selection
  const under = view.posAtCoords({ left: x, top: y })?.pos
  if (!between && !empty && selection instanceof TextSelection && under !== undefined && under >= from && under <= to) {
    return { kind: 'words', from, to }
  }
  const origin = originOf(view)
  const button = between ? undefined : buttonAt(view, x, y, origin)
  if (button) return button

  const { node, start, box: holder, across } = holderAt(view, x, y)
  const inset = node.type.name === 'doc' ? -10 : 0
  const markAt = (edge: number, box: DOMRect): Mark =>
    across
      ? { top: box.top - origin.top, left: edge - origin.left, width: 3, height: box.height }
      : { top: edge - origin.top, left: holder.left - origin.left + inset, width: holder.width - 2 * inset, height: 3 }
  const title = node.type.name === 'fold' ? node.firstChild!.nodeSize : 0
  let best = { distance: Infinity, position: start + title, mark: markAt(across ? holder.left + 4 : holder.top + 4, holder) }
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
    if (offset >= title) consider(last === undefined || last > low ? low - 4 : (last + low) / 2, start + offset, box)
    before = box
    consider(high + 4, start + offset + child.nodeSize, box)
  })
  const inside = ['column', 'section', 'fold'].includes(node.type.name) ? { holder: markOf(holder, origin, 3) } : {}
  return { kind: 'between', position: best.position, mark: best.mark, ...inside }
}
