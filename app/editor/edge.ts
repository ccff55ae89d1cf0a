import { Extension, type Editor } from '@tiptap/core'
import type { Node } from '@tiptap/pm/model'
import { NodeSelection, Plugin, type EditorState, type Transaction } from '@tiptap/pm/state'
import type { Edge } from '~~/core/page/edges'
import { ON_AN_EDGE, ON_A_PAGE, type ButtonStart } from '~~/core/page/insert'
import { MOST_IN_ROW } from '~~/core/page/schema'

declare module '@tiptap/core' {
  interface Storage {
    edge: { /** what is edited stands at this edge of every page */ edge: Edge | null }
  }
}

/** What a button starts out with where this editor stands. */
export const startOf = (editor: Editor): ButtonStart => (editor.storage.edge.edge ? ON_AN_EDGE : ON_A_PAGE)

interface Run {
  from: number
  to: number
  buttons: Node[]
  blocks: number
  loose: boolean
}

/** Stretches of the document that are nothing but buttons, alone or in rows. */
function runsOf(doc: Node): Run[] {
  const runs: Run[] = []
  doc.forEach((node, from) => {
    const loose = node.type.name === 'downloadButton'
    if (!loose && node.type.name !== 'buttonRow') return
    const last = runs.at(-1)
    const run = last?.to === from ? last : { from, to: from, buttons: [], blocks: 0, loose: false }
    if (run !== last) runs.push(run)
    run.to = from + node.nodeSize
    run.blocks++
    run.loose ||= loose
    run.buttons.push(...(loose ? [node] : node.children))
  })
  return runs
}

/** Where the items of the menu begin: at the first button or row; behind the mark of the site where there is none. */
export function menuPlace(doc: Node): number {
  const [first] = runsOf(doc)
  return first?.from ?? (doc.firstChild?.type.name === 'picture' ? doc.firstChild.nodeSize : 0)
}

/** Puts buttons that are next to each other in one row, as far as it has room; undefined where they are. */
function gather({ doc, schema, selection, tr }: EditorState): Transaction | undefined {
  const scattered = runsOf(doc).filter(
    ({ buttons, blocks, loose }) => loose || blocks > Math.max(1, Math.ceil(buttons.length / MOST_IN_ROW)),
  )
  for (const { from, to, buttons } of scattered.reverse()) {
    const rows = Array.from({ length: Math.max(1, Math.ceil(buttons.length / MOST_IN_ROW)) }, (_, row) =>
      schema.nodes.buttonRow!.create(null, buttons.slice(row * MOST_IN_ROW, (row + 1) * MOST_IN_ROW)),
    )
    tr.replaceWith(from, to, rows)
  }
  if (!tr.docChanged) return undefined
  const chosen = selection instanceof NodeSelection ? selection.node.attrs.placement : undefined
  if (chosen)
    tr.doc.descendants(
      (node, position) => void (node.attrs.placement === chosen && tr.setSelection(NodeSelection.create(tr.doc, position))),
    )
  return tr
}

/** What is different where an edge is edited: buttons of the head stand side by side, as visitors see them. */
export const EdgeRules = Extension.create({
  name: 'edge',
  addStorage: () => ({ edge: null }),
  addProseMirrorPlugins() {
    const { storage } = this
    return [
      new Plugin({
        appendTransaction: (transactions, _old, state) =>
          storage.edge === 'head' && transactions.some(({ docChanged }) => docChanged) ? gather(state) : undefined,
      }),
    ]
  },
})
