import { Extension, Mark, Node, mergeAttributes } from '@tiptap/core'
import { Fragment, Slice, type Node as DocumentNode } from '@tiptap/pm/model'
import { Plugin } from '@tiptap/pm/state'
import { VueNodeViewRenderer } from '@tiptap/vue-3'
import { firstAction, newCard, newLetterbox, newPicture, newPlacementId, newSearch } from '~~/core/page/insert'
import { letterboxAttrsSchema, type LetterboxAttrs } from '~~/core/letterbox/letterbox'
import { recognise } from '~~/core/page/recognise'
import {
  buttonAttrsSchema,
  cardAttrsSchema,
  downloadLinkSchema,
  pictureAttrsSchema,
  privacyAttrsSchema,
  searchAttrsSchema,
  shelfAttrsSchema,
  type ButtonAttrs,
  type CardAttrs,
  type PictureAttrs,
  type PrivacyAttrs,
  type SearchAttrs,
  type ShelfAttrs,
} from '~~/core/page/schema'
import { DATA, attribute, fromClipboard } from './attributes'
import type { Component } from 'vue'
import CardView from '~/components/page/CardView.vue'
import PictureView from '~/components/page/PictureView.vue'
import ButtonView from '~/components/page/ButtonView.vue'
import LetterboxView from '~/components/letterbox/LetterboxView.vue'
import PrivacyView from '~/components/page/PrivacyView.vue'
import SearchView from '~/components/page/SearchView.vue'
import ShelfView from '~/components/page/ShelfView.vue'

/** A download button: one block, drawn as visitors will see it. */
export const DownloadButton = Node.create({
  name: 'downloadButton',
  group: 'block',
  atom: true,
  draggable: true,
  selectable: true,
  addAttributes: () => ({
    placement: attribute(''),
    target: attribute(null),
    label: attribute(''),
    note: attribute(''),
    action: attribute('tab'),
    saveAs: attribute(''),
    look: attribute('slab'),
    own: attribute(null),
    align: attribute('left'),
  }),
  parseHTML: () => [{ tag: `div[${DATA}]`, getAttrs: element => fromClipboard<ButtonAttrs>(buttonAttrsSchema, element) }],
  renderHTML: ({ node }) => ['div', { [DATA]: JSON.stringify(node.attrs) }, node.attrs.label || 'Download'],
  addNodeView: () => VueNodeViewRenderer(ButtonView),
})

/** A listing of files: one block, drawn as visitors will see it. */
export const Shelf = Node.create({
  name: 'shelf',
  group: 'block',
  atom: true,
  draggable: true,
  selectable: true,
  addAttributes: () => ({
    placement: attribute(''),
    source: attribute(null),
    action: attribute('tab'),
    pick: attribute(true),
    zipName: attribute(''),
    layout: attribute(null),
    look: attribute(null),
    shown: attribute(null),
    search: attribute(false),
  }),
  parseHTML: () => [{ tag: `section[${DATA}]`, getAttrs: element => fromClipboard<ShelfAttrs>(shelfAttrsSchema, element) }],
  renderHTML: ({ node }) => ['section', { [DATA]: JSON.stringify(node.attrs) }, 'Files'],
  addNodeView: () => VueNodeViewRenderer(ShelfView),
})

/** A block of the page's own kind, drawn as visitors will see it, whose settings travel through the clipboard. */
const ownBlock = <Attrs extends object>(
  name: string,
  tag: string,
  schema: Parameters<typeof fromClipboard<Attrs>>[0],
  start: Attrs,
  view: Component,
  words: string,
) =>
  Node.create({
    name,
    group: 'block',
    atom: true,
    draggable: true,
    selectable: true,
    addAttributes: () => Object.fromEntries(Object.entries(start).map(([attr, value]) => [attr, attribute(value)])),
    parseHTML: () => [{ tag: `${tag}[${DATA}]`, getAttrs: element => fromClipboard<Attrs>(schema, element) }],
    renderHTML: ({ node }) => [tag, { [DATA]: JSON.stringify(node.attrs) }, words],
    addNodeView: () => VueNodeViewRenderer(view),
  })

/** A file with its picture, what it is, and its button. */
export const FileCard = ownBlock<CardAttrs>(
  'fileCard',
  'article',
  cardAttrsSchema,
  { ...newCard(null), placement: '', own: null },
  CardView,
  'File',
)

/** A field in which visitors look for files. */
export const Search = ownBlock<SearchAttrs>('search', 'search', searchAttrsSchema, { ...newSearch(), placement: '' }, SearchView, 'Search')

/** What the site says of what it keeps. */
export const Privacy = ownBlock<PrivacyAttrs>('privacy', 'aside', privacyAttrsSchema, { placement: '' }, PrivacyView, 'Privacy words')

/** Where visitors hand files in. */
export const Letterbox = ownBlock<LetterboxAttrs>(
  'letterbox',
  'form',
  letterboxAttrsSchema,
  { ...newLetterbox(), placement: '' },
  LetterboxView,
  'Letterbox',
)

/** A picture of the library. */
export const Picture = ownBlock<PictureAttrs>(
  'picture',
  'figure',
  pictureAttrsSchema,
  { ...newPicture(null), placement: '', field: null },
  PictureView,
  'Picture',
)

/** Words that lead to a file. */
export const DownloadLink = Mark.create({
  name: 'downloadLink',
  inclusive: false,
  addAttributes: () => ({ placement: attribute(''), target: attribute(null), action: attribute('tab'), saveAs: attribute('') }),
  parseHTML: () => [
    { tag: `a[${DATA}]`, getAttrs: element => fromClipboard(downloadLinkSchema.shape.attrs, element) },
    // Text from elsewhere keeps its links, as far as a page may lead there.
    {
      tag: 'a[href]',
      getAttrs: element => {
        const target = recognise(element.getAttribute('href') ?? '', [window.location.host])
        return target && target.kind !== 'own' ? { placement: newPlacementId(), target, action: firstAction(target), saveAs: '' } : false
      },
    },
  ],
  renderHTML: ({ mark, HTMLAttributes }) => [
    'a',
    mergeAttributes(HTMLAttributes, {
      class: mark.attrs.target ? 'tr-link' : 'tr-link without-target',
      [DATA]: JSON.stringify(mark.attrs),
    }),
    0,
  ],
})

/** Gives what is pasted identities of its own, one for each that came along. */
function withNewIdentities(slice: Slice): Slice {
  const fresh = new Map<string, string>()
  const renew = (old: string) => fresh.get(old) ?? fresh.set(old, newPlacementId()).get(old)!
  const visit = (fragment: Fragment): Fragment => {
    const nodes: DocumentNode[] = []
    fragment.forEach(node => {
      const marks = node.marks.map(mark =>
        mark.type.name === 'downloadLink' ? mark.type.create({ ...mark.attrs, placement: renew(mark.attrs.placement) }) : mark,
      )
      if (node.isText) nodes.push(node.mark(marks))
      else if (node.attrs.placement)
        nodes.push(node.type.create({ ...node.attrs, placement: renew(node.attrs.placement) }, visit(node.content)))
      else nodes.push(node.copy(visit(node.content)))
    })
    return Fragment.fromArray(nodes)
  }
  return new Slice(visit(slice.content), slice.openStart, slice.openEnd)
}

export const FreshPlacements = Extension.create({
  name: 'freshPlacements',
  addProseMirrorPlugins: () => [
    new Plugin({ props: { transformPasted: (slice, view) => (view.dragging ? slice : withNewIdentities(slice)) } }),
  ],
})
