import type { Editor } from '@tiptap/core'
import { Fragment, type Node, type ResolvedPos } from '@tiptap/pm/model'
import { closeHistory } from '@tiptap/pm/history'
import { NodeSelection, TextSelection, type EditorState, type Selection, type Transaction } from '@tiptap/pm/state'

/** Blocks that hold others, and have settings of their own. */
export type PartName = 'section' | 'columns' | 'fold' | 'buttonRow' | 'table' | 'space' | 'entryList'
export interface Part {
  name: PartName
  position: number
  node: Node
}

const PARTS: string[] = ['section', 'columns', 'fold', 'buttonRow', 'table', 'space', 'entryList'] satisfies PartName[]
const HOLDERS = ['doc', 'section', 'column', 'buttonRow', 'entryList']
const isHolder = (node: Node) => HOLDERS.includes(node.type.name)

/** The parts the caret or the selected block is in, the inmost first. */
export function partsAround({ selection }: EditorState): Part[] {
  const { $from } = selection
  const parts: Part[] = []
  const add = (node: Node, position: number) =>
    PARTS.includes(node.type.name) && parts.push({ name: node.type.name as PartName, position, node })
  if (selection instanceof NodeSelection) add(selection.node, selection.from)
  for (let depth = $from.depth; depth > 0; depth--) add($from.node(depth), $from.before(depth))
  return parts
}

/** The block the selection is in, as the page is made of them: a whole list, not a line of it. */
function blockAt(selection: Selection): { depth: number; position: number; node: Node } {
  const { $from } = selection
  if (selection instanceof NodeSelection && isHolder($from.parent)) return { depth: $from.depth, position: $from.pos, node: selection.node }
  let depth = $from.depth
  while (depth > 1 && !isHolder($from.node(depth - 1))) depth--
  return { depth: depth - 1, position: $from.before(depth), node: $from.node(depth) }
}

/** The position itself where blocks may stand there; else behind what it lies in, such as a row that is full. */
export function nearestPlace($position: ResolvedPos, nodes: Node[]): number {
  const fits = $position.parent.canReplace($position.index(), $position.index(), Fragment.from(nodes))
  return fits || !$position.depth ? $position.pos : nearestPlace($position.doc.resolve($position.after()), nodes)
}

/** Where something is put, and the empty line that gives way to it. */
export interface Place {
  position: number
  replaces?: { from: number; to: number }
}

/** Where blocks go: to a position, or behind the caret where none is given. */
export function placeFor(editor: Editor, nodes: Node[], at?: number): Place {
  const { doc, selection } = editor.state
  if (at !== undefined) return { position: nearestPlace(doc.resolve(at), nodes) }
  if (!(selection instanceof NodeSelection)) return placeBehind(selection.$to, nodes[0]!)
  const $position = doc.resolve(selection.to)
  return $position.parent.canReplaceWith($position.index(), $position.index(), nodes[0]!.type)
    ? { position: selection.to }
    : placeBehind($position, nodes[0]!)
}

/** Where a block may be put behind the one at a position: right behind it, or behind what it lies in. */
export function placeBehind($position: ResolvedPos, node: Node): Place {
  for (let depth = $position.depth; depth > 0; depth--) {
    const holder = $position.node(depth - 1)
    const index = $position.index(depth - 1)
    // A fold-out is moved as a whole; what is put where the caret is in it goes into it.
    if (!(isHolder(holder) || holder.type.name === 'fold') || !holder.canReplaceWith(index + 1, index + 1, node.type)) continue
    const block = $position.node(depth)
    // An empty line gives way to what is put there.
    const gives = block.isTextblock && block.content.size === 0 && holder.canReplaceWith(index, index + 1, node.type)
    return {
      position: gives ? $position.before(depth) : $position.after(depth),
      ...(gives && { replaces: { from: $position.before(depth), to: $position.after(depth) } }),
    }
  }
  return { position: $position.pos }
}

const inside = (holder: Node, position: number, atEnd: boolean) => (atEnd ? position + holder.nodeSize - 1 : position + 1)

/** Where a block goes when it is moved one step; undefined where there is nowhere. */
function oneStep(doc: Node, depth: number, position: number, node: Node, direction: -1 | 1): number | undefined {
  const $position = doc.resolve(position)
  const holder = $position.node(depth)
  const index = $position.index(depth)
  const next = holder.maybeChild(index + direction)
  const edge = direction < 0 ? position : position + node.nodeSize
  if (next) {
    const start = direction < 0 ? position - next.nodeSize : edge
    const into =
      next.type.name === 'columns'
        ? {
            node: direction < 0 ? next.lastChild! : next.firstChild!,
            at: direction < 0 ? start + next.nodeSize - 1 - next.lastChild!.nodeSize : start + 1,
          }
        : { node: next, at: start }
    const enters =
      ['section', 'column', 'buttonRow'].includes(into.node.type.name) &&
      into.node.canReplaceWith(into.node.childCount, into.node.childCount, node.type)
    return enters ? inside(into.node, into.at, direction < 0) : direction < 0 ? start : edge + next.nodeSize
  }
  if (depth === 0) return undefined
  if (holder.type.name !== 'column') return direction < 0 ? $position.before(depth) : $position.after(depth)
  const columns = $position.node(depth - 1)
  const beside = columns.maybeChild($position.index(depth - 1) + direction)
  if (beside) return direction < 0 ? $position.before(depth) - 1 : $position.after(depth) + 1
  return direction < 0 ? $position.before(depth - 1) : $position.after(depth - 1)
}

/** Takes a block out; what has to hold something keeps an empty line. */
function takeOut(tr: Transaction, position: number, node: Node): void {
  const $position = tr.doc.resolve(position)
  const { parent } = $position
  const alone = !parent.canReplace($position.index(), $position.index() + 1)
  if (alone) tr.replaceWith(position, position + node.nodeSize, tr.doc.type.schema.nodes.paragraph!.create())
  else tr.delete(position, position + node.nodeSize)
}

/** Moves the block the selection is in one step up (-1) or down (1): past its neighbour, into a section or column, or out of it. */
export function moveBlock(editor: Editor, direction: -1 | 1): boolean {
  const { doc, selection, tr } = editor.state
  const { depth, position, node } = blockAt(selection)
  const target = oneStep(doc, depth, position, node, direction)
  if (target === undefined) return false
  const offset = selection.from - position
  takeOut(tr, position, node)
  const at = tr.mapping.map(target, direction)
  tr.insert(at, node)
  const selected =
    selection instanceof NodeSelection && offset === 0 ? NodeSelection.create(tr.doc, at) : TextSelection.near(tr.doc.resolve(at + offset))
  editor.view.dispatch(closeHistory(tr.setSelection(selected).scrollIntoView()))
  return true
}

/** Moves a block to a position elsewhere on the page; where it may not stand there, behind what that lies in. */
export function moveBlockTo(editor: Editor, from: number, to: number): void {
  const { doc, tr } = editor.state
  const node = doc.nodeAt(from)
  if (!node || (to >= from && to <= from + node.nodeSize)) return
  const place = nearestPlace(doc.resolve(to), [node])
  takeOut(tr, from, node)
  const at = tr.mapping.map(place, place < from ? -1 : 1)
  tr.insert(at, node)
  editor.view.dispatch(closeHistory(tr.setSelection(NodeSelection.create(tr.doc, at)).scrollIntoView()))
}

/** Changes settings of a part. */
export function setPart(editor: Editor, { position, node }: Part, attrs: Record<string, unknown>): void {
  const { selection, tr } = editor.state
  tr.setNodeMarkup(position, undefined, { ...node.attrs, ...attrs })
  if (selection instanceof NodeSelection) tr.setSelection(NodeSelection.create(tr.doc, selection.from))
  editor.view.dispatch(closeHistory(tr))
}

/** Gives columns another number; what was in those that go is put below the rest of the last. */
export function setColumnCount(editor: Editor, { position, node }: Part, count: number): void {
  const { schema, tr } = editor.state
  const columns = Array.from(
    { length: count },
    (_, index) => node.maybeChild(index) ?? schema.nodes.column!.create(null, schema.nodes.paragraph!.create()),
  )
  for (let index = count; index < node.childCount; index++) {
    const last = columns[count - 1]!
    const isEmpty = node.child(index).textContent === '' && node.child(index).childCount === 1 && node.child(index).firstChild!.isTextblock
    if (!isEmpty) columns[count - 1] = last.copy(last.content.append(node.child(index).content))
  }
  tr.replaceWith(position, position + node.nodeSize, schema.nodes.columns!.create(count === 2 ? node.attrs : null, columns))
  editor.view.dispatch(closeHistory(tr.setSelection(TextSelection.near(tr.doc.resolve(position + 2)))))
  editor.view.focus()
}

/** Takes a part away and leaves what was in it. */
export function dissolvePart(editor: Editor, { position, node }: Part): void {
  const { tr } = editor.state
  const content: Node[] = []
  node.forEach(child => (child.type.name === 'column' ? child.forEach(block => content.push(block)) : content.push(child)))
  if (content.length) tr.replaceWith(position, position + node.nodeSize, content)
  else takeOut(tr, position, node)
  editor.view.dispatch(closeHistory(tr.setSelection(TextSelection.near(tr.doc.resolve(position)))))
  editor.view.focus()
}

/** Takes a part away with all that is in it. */
export function removePart(editor: Editor, { position, node }: Part): void {
  const { tr } = editor.state
  takeOut(tr, position, node)
  editor.view.dispatch(closeHistory(tr))
  editor.view.focus()
}

/** Selects the part as a whole, so that it is moved. */
export function selectPart(editor: Editor, { position }: Part): void {
  editor.view.dispatch(editor.state.tr.setSelection(NodeSelection.create(editor.state.doc, position)))
}
