import type { Editor } from '@tiptap/core'
import { Fragment, type Mark, type Node, type ResolvedPos } from '@tiptap/pm/model'
import { GapCursor } from '@tiptap/pm/gapcursor'
import { closeHistory } from '@tiptap/pm/history'
import { NodeSelection, Selection, TextSelection } from '@tiptap/pm/state'
import { newButton, newPlacementId, newShelf } from '~~/core/page/insert'
import { MOST_IN_ROW, type ButtonAttrs, type PageDocument, type ShelfAttrs, type ShelfSource, type Target } from '~~/core/page/schema'
import { placeBehind } from './parts'

export const documentOf = (editor: Editor) => editor.getJSON() as PageDocument

/** Puts the caret where the page goes on: at its end, below a button that ends it. */
export function focusEnd(editor: Editor): void {
  const { doc, tr } = editor.state
  const end = doc.resolve(doc.content.size)
  const below = doc.lastChild?.isAtom ? new GapCursor(end) : Selection.atEnd(doc)
  editor.view.dispatch(tr.setSelection(below).setMeta('addToHistory', false))
  editor.view.focus()
}

/** What is typed letter by letter is undone together; any other setting is a step of its own. */
const TYPED = ['label', 'note', 'saveAs', 'zipName']

/** The position itself where the blocks may stand there; else behind what it lies in, such as a row that is full. */
function nearestPlace($position: ResolvedPos, nodes: Node[]): number {
  const fits = $position.parent.canReplace($position.index(), $position.index(), Fragment.from(nodes))
  return fits || !$position.depth ? $position.pos : nearestPlace($position.doc.resolve($position.after()), nodes)
}

/** Puts blocks at a position, or behind the caret where none is given; an empty line there gives way. */
export function insertBlocks(editor: Editor, nodes: Node[], at?: number): void {
  const { state } = editor
  const { selection } = state
  const $position = selection instanceof NodeSelection ? state.doc.resolve(selection.to) : selection.$to
  const place = at !== undefined ? { position: nearestPlace(state.doc.resolve(at), nodes) } : selection instanceof NodeSelection && $position.parent.canReplaceWith($position.index(), $position.index(), nodes[0]!.type) ? { position: selection.to } : placeBehind($position, nodes[0]!)
  const tr = state.tr
  if ('replaces' in place && place.replaces) tr.replaceWith(place.replaces.from, place.replaces.to, nodes)
  else tr.insert(place.position, nodes)
  const first = nodes[0]!
  tr.setSelection(first.isAtom ? NodeSelection.create(tr.doc, place.position) : TextSelection.near(tr.doc.resolve(place.position + 1)))
  editor.view.dispatch(closeHistory(tr.scrollIntoView()))
}

export function insertButton(editor: Editor, target: Target | null, label: string, position?: number): ButtonAttrs {
  const attrs = newButton(target, label)
  insertBlocks(editor, [editor.schema.nodes.downloadButton!.create(attrs)], position)
  return attrs
}

/** Puts several buttons at a position, in a row or one below the other; gives their placements. */
export function insertButtons(editor: Editor, buttons: { target: Target | null, label: string }[], asRow: boolean, position: number): string[] {
  const { downloadButton, buttonRow } = editor.schema.nodes
  const nodes = buttons.map(({ target, label }) => downloadButton!.create(newButton(target, label)))
  const rows = Array.from({ length: Math.ceil(nodes.length / MOST_IN_ROW) }, (_, row) => buttonRow!.create(null, nodes.slice(row * MOST_IN_ROW, (row + 1) * MOST_IN_ROW)))
  insertBlocks(editor, asRow ? rows : nodes, position)
  return nodes.map(node => node.attrs.placement as string)
}

export const insertShelf = (editor: Editor, source: ShelfSource | null, position?: number): void =>
  insertBlocks(editor, [editor.schema.nodes.shelf!.create(newShelf(source))], position)

/** Makes the words between two positions a link; gives the placement it got. */
export function linkWords(editor: Editor, target: Target | null, from: number, to: number): string {
  const placement = newPlacementId()
  const mark = editor.state.schema.marks.downloadLink!.create({ placement, target, action: 'tab', saveAs: '' })
  const tr = editor.state.tr.addMark(from, to, mark)
  editor.view.dispatch(tr.setSelection(TextSelection.create(tr.doc, to)))
  return placement
}

/** A placement that is a block of its own, and where it stands; undefined where it was removed meanwhile. */
function findBlock(editor: Editor, placement: string): { position: number, node: Node } | undefined {
  let found: { position: number, node: Node } | undefined
  editor.state.doc.descendants((node, position) => {
    if (node.attrs.placement === placement) found = { position, node }
    return !found
  })
  return found
}

/** The pieces of text a placement's link stands on. */
function findLink(editor: Editor, placement: string): { from: number, to: number, mark: Mark }[] {
  const pieces: { from: number, to: number, mark: Mark }[] = []
  editor.state.doc.descendants((node, position) => {
    const mark = node.marks.find(other => other.type.name === 'downloadLink' && other.attrs.placement === placement)
    if (mark) pieces.push({ from: position, to: position + node.nodeSize, mark })
  })
  return pieces
}

/**
 * Changes a button, shelf or link, wherever it has moved to; one that was removed meanwhile stays so.
 * `quiet` keeps the change out of the undo history, as when an upload arrives.
 */
export function changePlacement(editor: Editor, placement: string, changed: Partial<ButtonAttrs> | Partial<ShelfAttrs>, { quiet = false } = {}): void {
  const { selection, tr } = editor.state
  const block = findBlock(editor, placement)
  if (block) {
    tr.setNodeMarkup(block.position, undefined, { ...block.node.attrs, ...changed })
    if (selection instanceof NodeSelection && selection.from === block.position) tr.setSelection(NodeSelection.create(tr.doc, block.position))
  }
  for (const { from, to, mark } of findLink(editor, placement)) tr.addMark(from, to, mark.type.create({ ...mark.attrs, ...changed }))
  if (!Object.keys(changed).every(name => TYPED.includes(name))) closeHistory(tr)
  if (tr.docChanged) editor.view.dispatch(tr.setMeta('addToHistory', !quiet))
}

/** Puts a copy of a button or shelf below it, and selects the copy. */
export function duplicateBlock(editor: Editor, placement: string): void {
  const found = findBlock(editor, placement)
  if (!found) return
  const copy = found.node.type.create({ ...found.node.attrs, placement: newPlacementId() })
  const tr = editor.state.tr.insert(found.position + 1, copy)
  editor.view.dispatch(tr.setSelection(NodeSelection.create(tr.doc, found.position + 1)).scrollIntoView())
}

/** Takes a button or shelf off the page, or leaves a link's words as plain text. */
export function removePlacement(editor: Editor, placement: string): void {
  const { tr } = editor.state
  const block = findBlock(editor, placement)
  if (block) tr.delete(block.position, block.position + block.node.nodeSize)
  for (const { from, to, mark } of findLink(editor, placement)) tr.removeMark(from, to, mark)
  editor.view.dispatch(tr)
  editor.view.focus()
}
