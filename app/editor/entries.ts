import { Node } from '@tiptap/core'
import { VueNodeViewRenderer } from '@tiptap/vue-3'
import { listAttrsSchema, newList, type ListAttrs } from '~~/core/catalogue/listAttrs'
import EntryListView from '~/components/catalogue/EntryListView.vue'
import FieldView from '~/components/catalogue/FieldView.vue'
import SiteValueView from '~/components/catalogue/SiteValueView.vue'
import { DATA, attribute, fromClipboard } from './attributes'

const FIELD = 'data-entry-field'
/** The identity of a field, as an attribute of what stands for it. */
const namedBy = (name: string) => ({
  default: '',
  parseHTML: (element: HTMLElement) => element.getAttribute(name) ?? '',
  renderHTML: ({ field }: { field?: string }) => ({ [name]: field ?? '' }),
})

/** What each entry has in a field, in a line of words. */
export const FieldInline = Node.create({
  name: 'field',
  group: 'inline',
  inline: true,
  atom: true,
  selectable: true,
  draggable: true,
  addAttributes: () => ({ field: namedBy(FIELD) }),
  parseHTML: () => [{ tag: `span[${FIELD}]` }],
  renderHTML: ({ HTMLAttributes }) => ['span', HTMLAttributes],
  addNodeView: () => VueNodeViewRenderer(FieldView),
})

const SITE_VALUE = 'data-site-value'

/** A value of the whole site, in a line of words. */
export const SiteValueInline = Node.create({
  name: 'siteValue',
  group: 'inline',
  inline: true,
  atom: true,
  selectable: true,
  draggable: true,
  addAttributes: () => ({ field: namedBy(SITE_VALUE) }),
  parseHTML: () => [{ tag: `span[${SITE_VALUE}]` }],
  renderHTML: ({ HTMLAttributes }) => ['span', HTMLAttributes],
  addNodeView: () => VueNodeViewRenderer(SiteValueView),
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
