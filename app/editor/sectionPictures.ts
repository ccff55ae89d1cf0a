import { Extension } from '@tiptap/core'
import type { Node } from '@tiptap/pm/model'
import { Plugin } from '@tiptap/pm/state'
import { Decoration, DecorationSet } from '@tiptap/pm/view'
import { shallowRef, watch } from 'vue'
import { targetFacts } from '~~/core/page/placeholders'
import { FIRST_VEIL, behindHtml } from '~~/core/page/sectionPicture'
import { useLibrary } from '~/stores/library'

interface Pictured {
  position: number
  /** as on the live page */
  html: string
}

/** The pictures behind sections, as far as they are known; sections stand right on the page only. */
function picturedIn(doc: Node): Pictured[] {
  const { known } = useLibrary()
  const found: Pictured[] = []
  doc.forEach((node, position) => {
    const file = node.attrs.picture ? known.get(node.attrs.picture) : undefined
    const facts = file && !file.deleted ? targetFacts(file) : undefined
    if (facts?.picture) found.push({ position, html: behindHtml(facts, node.attrs.veil ?? FIRST_VEIL) })
  })
  return found
}

function drawn(html: string): HTMLElement {
  const template = document.createElement('template')
  template.innerHTML = html
  return template.content.firstElementChild as HTMLElement
}

/** Draws what stands behind sections just as it is live: it is no part of what is written in them. */
export const SectionPictures = Extension.create({
  name: 'sectionPictures',
  addProseMirrorPlugins: () => [
    new Plugin({
      props: {
        decorations: ({ doc }) =>
          DecorationSet.create(
            doc,
            picturedIn(doc).map(({ position, html }) =>
              Decoration.widget(position + 1, () => drawn(html), { side: -1, key: html, ignoreSelection: true }),
            ),
          ),
      },
      view(view) {
        const doc = shallowRef(view.state.doc)
        // A file becomes known, or gets another picture, after the page is here.
        const stop = watch(
          () => JSON.stringify(picturedIn(doc.value).map(({ html }) => html)),
          () => view.dispatch(view.state.tr.setMeta('addToHistory', false)),
          { flush: 'post' },
        )
        return {
          update: ({ state }) => void (doc.value = state.doc),
          destroy: stop,
        }
      },
    }),
  ],
})
