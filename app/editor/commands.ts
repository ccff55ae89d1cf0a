import type { Editor } from '@tiptap/core'
import type { Mark, Node } from '@tiptap/pm/model'
import { GapCursor } from '@tiptap/pm/gapcursor'
import { closeHistory } from '@tiptap/pm/history'
import { NodeSelection, Selection, TextSelection } from '@tiptap/pm/state'
import { cardLines, firstAction, newButton, newCard, newPicture, newPlacementId, newShelf } from '~~/core/page/insert'
import {
  MOST_IN_ROW,
  type ButtonAttrs,
  type CardAttrs,
  type PageDocument,
  type PictureAttrs,
  type ShelfAttrs,
  type Target,
} from '~~/core/page/schema'
import type { ShelfSource } from '~~/core/shelf/shelfSource'
import { startOf } from './edge'
import { buttonsAt } from './neighbours'
import { placeFor, type Part } from './parts'

export const documentOf = (editor: Editor): PageDocument => withoutDefaults(editor.getJSON() as PageDocument)

/** The editor writes down at each block what it does not have; a page that was saved before there was such a setting stays the same. */
function withoutDefaults<Node extends object>(node: Node): Node {
  const { type, attrs, content } = node as { type?: string; attrs?: Record<string, unknown>; content?: object[] }
  if (attrs && attrs.ghost === null) delete attrs.ghost
  if (attrs && type === 'shelf') for (const name of ['layout', 'look', 'shown', 'search']) if (!attrs[name]) delete attrs[name]
  if (attrs && type === 'section' && !attrs.picture) for (const name of ['picture', 'placement', 'veil']) delete attrs[name]
  if (attrs && (type === 'paragraph' ? !attrs.ghost : type === 'columns' && attrs.share === 'even'))
    delete (node as { attrs?: object }).attrs
  content?.forEach(withoutDefaults)
  return node
}

/** Puts the caret where the page goes on: at its end, below what ends it where no words can be written in that. */
export function focusEnd(editor: Editor): void {
  const { doc, tr } = editor.state
  const last = Selection.atEnd(doc)
  editor.view.dispatch(
    tr.setSelection(last instanceof NodeSelection ? new GapCursor(doc.resolve(doc.content.size)) : last).setMeta('addToHistory', false),
  )
  editor.view.focus()
}

export function focusStart(editor: Editor): void {
  const { doc, tr } = editor.state
  editor.view.dispatch(tr.setSelection(Selection.atStart(doc)))
  editor.view.focus()
}

/** What is typed letter by letter, or moved step by step, is undone together; any other setting is a step of its own. */
const TYPED = ['label', 'note', 'saveAs', 'zipName', 'own', 'title', 'text', 'alt', 'caption']

/** Puts blocks at a position, or behind the caret where none is given; an empty line there gives way. */
export function insertBlocks(editor: Editor, nodes: Node[], at?: number): void {
  const place = placeFor(editor, nodes, at)
  const { tr } = editor.state
  if (place.replaces) tr.replaceWith(place.replaces.from, place.replaces.to, nodes)
  else tr.insert(place.position, nodes)
  const first = nodes[0]!
  tr.setSelection(first.isAtom ? NodeSelection.create(tr.doc, place.position) : TextSelection.near(tr.doc.resolve(place.position + 1)))
  editor.view.dispatch(closeHistory(tr.scrollIntoView()))
}

export function insertButton(editor: Editor, target: Target | null, label: string, position?: number): ButtonAttrs {
  const { create } = buttonsAt(editor, position)
  const attrs = create(target, label)
  insertBlocks(editor, [editor.schema.nodes.downloadButton!.create(attrs)], position)
  return attrs
}

/** Puts a picture at a position; gives its placement. */
export function insertPicture(editor: Editor, file: string | null, position: number): string {
  const attrs = newPicture(file)
  insertBlocks(editor, [editor.schema.nodes.picture!.create(attrs)], position)
  return attrs.placement
}

/** Makes a picture a button that gives its file. */
export function pictureToButton(editor: Editor, placement: string, label: string): void {
  const found = findBlock(editor, placement)
  if (!found || found.node.type.name !== 'picture') return
  const { node, position } = found
  const button = editor.schema.nodes.downloadButton!.create({
    ...buttonsAt(editor, position).create(node.attrs.file ? { kind: 'file', id: node.attrs.file } : null, label),
    placement,
  })
  const { tr } = editor.state
  tr.replaceWith(position, position + node.nodeSize, button)
  editor.view.dispatch(closeHistory(tr.setSelection(NodeSelection.create(tr.doc, position))))
}

/** Gives a placement what it was waiting for. */
export function givePlacement(editor: Editor, placement: string, to: Target | ShelfSource): void {
  const node = findBlock(editor, placement)?.node
  const shows = node?.type.name === 'picture' && !node.attrs.file && to.kind === 'file'
  const changed = to.kind === 'folder' || to.kind === 'files' ? { source: to } : shows ? { file: to.id } : { target: to }
  changePlacement(editor, placement, changed, { quiet: true })
}

/** Puts several buttons at a position, in a row or one below the other, or cards or pictures side by side; gives their placements. */
export function insertSeveral(
  editor: Editor,
  buttons: { target: Target | null; label: string }[],
  way: 'row' | 'stack' | 'cards' | 'pictures',
  position: number,
): string[] {
  const { downloadButton, buttonRow, fileCard, picture, columns, column } = editor.schema.nodes
  const { create } = buttonsAt(editor, position)
  const nodes = buttons.map(({ target, label }) => {
    if (way === 'pictures') return picture!.create(newPicture(target?.kind === 'file' ? target.id : null))
    return way === 'cards' ? fileCard!.create(newCard(target)) : downloadButton!.create(create(target, label))
  })
  const take = (from: number, count: number) => nodes.slice(from, from + count)
  let from = 0
  if (way === 'row')
    insertBlocks(
      editor,
      Array.from({ length: Math.ceil(nodes.length / MOST_IN_ROW) }, (_, row) =>
        buttonRow!.create(null, take(row * MOST_IN_ROW, MOST_IN_ROW)),
      ),
      position,
    )
  else if (way === 'cards' || way === 'pictures')
    insertBlocks(
      editor,
      cardLines(nodes.length).map(count =>
        columns!.create(
          null,
          take((from += count) - count, count).map(card => column!.create(null, card)),
        ),
      ),
      position,
    )
  else insertBlocks(editor, nodes, position)
  return nodes.map(node => node.attrs.placement as string)
}

/**
 * Puts the same button or card again behind a placement, leading to another file, and selects it; what was said of the first file is not
 * said of this one. Gives its placement; undefined where the first was removed meanwhile.
 */
export function placeAgain(editor: Editor, placement: string, target: Target | null, title: string): string | undefined {
  const found = findBlock(editor, placement)
  if (!found) return undefined
  const { node, position } = found
  const said = node.type.name === 'fileCard' ? { title: '', text: '' } : { label: title }
  const made = newPlacementId()
  insertBlocks(editor, [node.type.create({ ...node.attrs, ...said, placement: made, target, saveAs: '' })], position + node.nodeSize)
  return made
}

/**
 * Fills a row with buttons that look like its first one, up to as many as it holds; a first one that leads nowhere gives way. Gives how
 * many found room.
 */
export function fillRow(editor: Editor, { position, node }: Part, files: { target: Target; title: string }[]): number {
  const first = node.firstChild
  const attrs = first?.attrs ?? newButton(null, '', startOf(editor))
  const kept = Array.from({ length: node.childCount }, (_, index) => node.child(index)).filter(button => button.attrs.target)
  const added = files.slice(0, MOST_IN_ROW - kept.length).map(({ target, title }) =>
    editor.schema.nodes.downloadButton!.create({
      ...attrs,
      placement: newPlacementId(),
      target,
      label: title,
      saveAs: '',
      action: firstAction(target),
    }),
  )
  if (added.length) {
    const { tr } = editor.state
    tr.replaceWith(position + 1, position + node.nodeSize - 1, [...kept, ...added])
    editor.view.dispatch(closeHistory(tr.setSelection(NodeSelection.create(tr.doc, position))))
  }
  return added.length
}

/** Puts a shelf at a position; gives its placement. */
export function insertShelf(editor: Editor, source: ShelfSource | null, position?: number): string {
  const attrs = newShelf(source)
  insertBlocks(editor, [editor.schema.nodes.shelf!.create(attrs)], position)
  return attrs.placement
}

/** Makes the words between two positions a link; gives the placement it got. */
export function linkWords(editor: Editor, target: Target | null, from: number, to: number): string {
  const placement = newPlacementId()
  const mark = editor.state.schema.marks.downloadLink!.create({ placement, target, action: firstAction(target), saveAs: '' })
  const tr = editor.state.tr.addMark(from, to, mark)
  editor.view.dispatch(tr.setSelection(TextSelection.create(tr.doc, to)))
  return placement
}

/** Links the selected words; where none are, puts words there that lead to it. Where it leads nowhere the text itself is put there. */
export function pasteLink(editor: Editor, led: { target: Target; title: string } | undefined, text: string): void {
  const { from, to, empty, $from } = editor.state.selection
  const words = led?.title ?? text
  if (!$from.parent.isTextblock) insertBlocks(editor, [editor.schema.nodes.paragraph!.create(null, editor.schema.text(words))])
  else if (empty || !led) editor.view.dispatch(editor.state.tr.insertText(words, from, to))
  if (!led) return
  const start = !$from.parent.isTextblock ? editor.state.selection.$from.start() : from
  linkWords(editor, led.target, start, empty || !$from.parent.isTextblock ? start + words.length : to)
}

/** What a button, card or picture leads to now. */
export const targetAt = (editor: Editor, placement: string): Target | null =>
  (findBlock(editor, placement)?.node.attrs.target ?? null) as Target | null

/** A placement that is a block of its own, and where it stands; undefined where it was removed meanwhile. */
function findBlock(editor: Editor, placement: string): { position: number; node: Node } | undefined {
  let found: { position: number; node: Node } | undefined
  editor.state.doc.descendants((node, position) => {
    if (node.attrs.placement === placement) found = { position, node }
    return !found
  })
  return found
}

/** Selects a button, shelf, card, picture or link, and brings it into view; false where it is not on the page. */
export function selectPlacement(editor: Editor, placement: string): boolean {
  const { tr } = editor.state
  const block = findBlock(editor, placement)
  const [link] = findLink(editor, placement)
  if (block) tr.setSelection(NodeSelection.create(tr.doc, block.position))
  else if (link) tr.setSelection(TextSelection.create(tr.doc, link.from + 1))
  else return false
  editor.view.dispatch(tr.scrollIntoView())
  editor.view.focus()
  return true
}

/** The pieces of text a placement's link stands on. */
function findLink(editor: Editor, placement: string): { from: number; to: number; mark: Mark }[] {
  const pieces: { from: number; to: number; mark: Mark }[] = []
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
export function changePlacement(
  editor: Editor,
  placement: string,
  changed: Partial<ButtonAttrs> | Partial<ShelfAttrs> | Partial<CardAttrs> | Partial<PictureAttrs>,
  { quiet = false } = {},
): void {
  const { selection, tr } = editor.state
  const block = findBlock(editor, placement)
  if (block) {
    tr.setNodeMarkup(block.position, undefined, { ...block.node.attrs, ...changed })
    if (selection instanceof NodeSelection && selection.from === block.position)
      tr.setSelection(NodeSelection.create(tr.doc, block.position))
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
