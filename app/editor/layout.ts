import { Node, mergeAttributes } from '@tiptap/core'
import { MOST_IN_ROW, sectionAttrsSchema, type SectionAttrs } from '~~/core/page/schema'
import { sectionClass } from '~~/core/page/sectionPicture'
import { DATA, attribute, fromClipboard } from './attributes'

/** The page itself: layout stands only here, and columns also in sections. */
export const PageRoot = Node.create({ name: 'doc', topNode: true, content: '(block | columns | fold | section | entryList)+' })

/** A stretch of the page with its own background, padding and width. */
export const Section = Node.create({
  name: 'section',
  content: '(block | columns | fold | entryList)+',
  isolating: true,
  defining: true,
  addAttributes: () => ({
    tone: attribute('tint'),
    padding: attribute('medium'),
    width: attribute('text'),
    picture: attribute(null),
    placement: attribute(null),
    veil: attribute(null),
    onlyIf: attribute(null),
    onlyFor: attribute(null),
  }),
  parseHTML: () => [{ tag: `section[${DATA}]`, getAttrs: element => fromClipboard<SectionAttrs>(sectionAttrsSchema, element) }],
  renderHTML: ({ node: { attrs } }) => [
    'section',
    { class: sectionClass(attrs as SectionAttrs, !!attrs.picture), [DATA]: JSON.stringify(attrs) },
    0,
  ],
})

export const Columns = Node.create({
  name: 'columns',
  content: 'column{2,4}',
  isolating: true,
  addAttributes: () => ({
    share: {
      default: 'even',
      rendered: false,
      parseHTML: (element: HTMLElement) => /tr-share-(first|last)/.exec(element.className)?.[1] ?? 'even',
    },
  }),
  parseHTML: () => [{ tag: 'div.tr-columns' }],
  renderHTML: ({ node }) => ['div', { class: `tr-columns tr-columns-${node.childCount} tr-share-${node.attrs.share}` }, 0],
})

/** A question, and what is shown of it once it is pressed; open while it is written. */
export const Fold = Node.create({
  name: 'fold',
  content: 'foldTitle block+',
  isolating: true,
  defining: true,
  parseHTML: () => [{ tag: 'div.tr-fold' }],
  renderHTML: () => ['div', { class: 'tr-fold' }, 0],
})

export const FoldTitle = Node.create({
  name: 'foldTitle',
  content: 'text*',
  marks: '',
  defining: true,
  selectable: false,
  parseHTML: () => [{ tag: 'div.tr-fold-title' }],
  renderHTML: () => ['div', { class: 'tr-fold-title' }, 0],
})

export const Column = Node.create({
  name: 'column',
  content: 'block+',
  isolating: true,
  parseHTML: () => [{ tag: 'div.tr-column' }],
  renderHTML: () => ['div', { class: 'tr-column' }, 0],
})

/** Buttons side by side. */
export const ButtonRow = Node.create({
  name: 'buttonRow',
  group: 'block',
  content: `downloadButton{0,${MOST_IN_ROW}}`,
  addAttributes: () => ({
    align: {
      default: 'left',
      rendered: false,
      parseHTML: (element: HTMLElement) => /tr-row-(left|middle|right)/.exec(element.className)?.[1] ?? 'left',
    },
  }),
  parseHTML: () => [{ tag: 'div.tr-row' }],
  renderHTML: ({ node }) => ['div', mergeAttributes({ class: `tr-row tr-row-${node.attrs.align}` }), 0],
})

export const Space = Node.create({
  name: 'space',
  group: 'block',
  atom: true,
  selectable: true,
  draggable: true,
  addAttributes: () => ({
    size: {
      default: 'medium',
      rendered: false,
      parseHTML: (element: HTMLElement) => /tr-space-(small|medium|large)/.exec(element.className)?.[1] ?? 'medium',
    },
  }),
  parseHTML: () => [{ tag: 'div.tr-space' }],
  renderHTML: ({ node }) => ['div', { class: `tr-space tr-space-${node.attrs.size}` }],
})
