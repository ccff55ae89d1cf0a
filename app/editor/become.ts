import type { Node } from '@tiptap/pm/model'
import type { EditorState, Transaction } from '@tiptap/pm/state'

const alike = (a: Node, b: Node) => a.type === b.type && a.nodeSize === b.nodeSize && a.childCount === b.childCount

/** Whether two are laid out alike, so that what is different in them are settings alone. */
function sameFrame(a: Node, b: Node): boolean {
  if (!alike(a, b) || a.text !== b.text) return false
  for (let index = 0; index < a.childCount; index++) if (!sameFrame(a.child(index), b.child(index))) return false
  return true
}

function takeSettings(tr: Transaction, a: Node, b: Node, position: number): void {
  if (a.eq(b)) return
  if (a.isLeaf) tr.replaceWith(position, position + a.nodeSize, b)
  else if (!a.sameMarkup(b)) tr.setNodeMarkup(position, undefined, b.attrs, b.marks)
  if (!a.isLeaf) takeAll(tr, a, b, position + 1)
}

function takeAll(tr: Transaction, a: Node, b: Node, begin: number): void {
  let position = begin
  for (let index = 0; index < a.childCount; index++) {
    takeSettings(tr, a.child(index), b.child(index), position)
    position += a.child(index).nodeSize
  }
}

/**
 * The smallest change that makes a page another: only the settings that differ where nothing else does, so that what was written around
 * them can still be undone; else what lies between the first and the last difference.
 *
 * @returns undefined where nothing differs
 */
export function become({ doc, tr }: EditorState, other: Node): Transaction | undefined {
  if (doc.eq(other)) return undefined
  if (sameFrame(doc, other)) {
    takeAll(tr, doc, other, 0)
    return tr
  }
  const start = doc.content.findDiffStart(other.content)!
  const end = doc.content.findDiffEnd(other.content)!
  // What is repeated around a difference is found from both sides.
  const overlap = Math.max(0, start - Math.min(end.a, end.b))
  tr.replace(start, end.a + overlap, other.slice(start, end.b + overlap))
  return tr.doc.eq(other) ? tr : tr.replaceWith(0, tr.doc.content.size, other.content)
}
