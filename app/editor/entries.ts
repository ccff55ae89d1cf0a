import { Node } from '@tiptap/core'
import { VueNodeViewRenderer } from '@tiptap/vue-3'
import { listAttrsSchema, newList, type ListAttrs } from '~~/core/catalogue/listAttrs'
import EntryListView from '~/components/catalogue/EntryListView.vue'
import FieldView from '~/components/catalogue/FieldView.vue'
import { DATA, attribute, fromClipboard } from './attributes'

const FIELD = 'data-entry-field'

/** What each entry has in a field, in a line of words. */
export const FieldInline = Node.create({
  name: 'field',
  group: 'inline',
  inline: true,
  atom: true,
  selectable: true,
  draggable: true,
  addAttributes: () => ({
    field: {
      default: '',
      parseHTML: (element: HTMLElement) => element.getAttribute(FIELD) ?? '',
      renderHTML: ({ field }: { field?: string }) => ({ [FIELD]: field ?? '' }),
    },
  }),
  parseHTML: () => [{ tag: `span[${FIELD}]` }],
  renderHTML: ({ HTMLAttributes }) => ['span', HTMLAttributes],
  addNodeView: () => VueNodeViewRenderer(FieldView),
})

/** The entries of a catalogue: what is laid out in it stands for each of them. */
export const EntryList = Node.create({
  name: 'entryList',
  content: 'block+',
  isolating: true,
  defining: true,
  selectable: true,
  draggable: true,
  addAttributes: () =>
    Object.fromEntries(Object.entries({ ...newList('', null), placement: '' }).map(([name, value]) => [name, attribute(value)])),
  parseHTML: () => [{ tag: `section[${DATA}]`, getAttrs: element => fromClipboard<ListAttrs>(listAttrsSchema, element) }],
  renderHTML: ({ node }) => ['section', { [DATA]: JSON.stringify(node.attrs) }, 0],
  addNodeView: () => VueNodeViewRenderer(EntryListView),
})
