import type { Editor } from '@tiptap/core'
import type { Node } from '@tiptap/pm/model'
import { mostMet, startLike } from '~~/core/page/alike'
import { newButton } from '~~/core/page/insert'
import type { ButtonAttrs, Target } from '~~/core/page/schema'
import { startOf } from './edge'
import { placeFor } from './parts'

const attrsOf = (node: Node | null | undefined) => (node?.type.name === 'downloadButton' ? (node.attrs as ButtonAttrs) : undefined)

function buttonsOf(doc: Node): ButtonAttrs[] {
  const buttons: ButtonAttrs[] = []
  doc.descendants(node => {
    const attrs = attrsOf(node)
    if (attrs) buttons.push(attrs)
  })
  return buttons
}

/**
 * Makes buttons for a place, or for behind the caret: like the one beside, above or below it; else like most of this page; else as is
 * usual.
 */
export function buttonsAt(editor: Editor, at?: number): { create: (target: Target | null, label: string) => ButtonAttrs } {
  const { doc, schema } = editor.state
  const usual = startOf(editor)
  const { position, replaces } = placeFor(editor, [schema.nodes.downloadButton!.create(newButton(null, ''))], at)
  const beside = attrsOf(doc.resolve(replaces?.from ?? position).nodeBefore) ?? attrsOf(doc.resolve(replaces?.to ?? position).nodeAfter)
  const model = beside ?? mostMet(buttonsOf(doc))
  return {
    create: (target, label) =>
      newButton(target, label, model ? { ...startLike(model, target, usual), ...(beside && { align: beside.align }) } : usual),
  }
}
