import {
  mdiFormatHeader2,
  mdiFormatListBulleted,
  mdiFormatQuoteClose,
  mdiMagnify,
  mdiMailboxOutline,
  mdiMinus,
  mdiShieldAccountOutline,
  mdiArrowExpandVertical,
  mdiRectangleOutline,
  mdiUnfoldMoreHorizontal,
  mdiViewColumnOutline,
  mdiFormTextbox,
  mdiViewGridOutline,
  mdiViewListOutline,
  mdiViewSplitVertical,
  mdiButtonPointer,
  mdiCardTextOutline,
  mdiImageMultipleOutline,
  mdiImageOutline,
  mdiTable,
} from '@mdi/js'
import type { Editor } from '@tiptap/core'
import type { Node } from '@tiptap/pm/model'
import { TextSelection } from '@tiptap/pm/state'
import { closeHistory } from '@tiptap/pm/history'
import { firstCard } from '~~/core/catalogue/ways'
import { OWN_PAGE } from '~~/core/catalogue/bind'
import { newList } from '~~/core/catalogue/listAttrs'
import { TITLE, isFileKind, type Field } from '~~/core/catalogue/field'
import { useCatalogues } from '~/stores/catalogues'
import { catalogueAround } from '~/composables/entryHere'
import { KIND_WORDS } from '~/catalogue/fieldWords'
import { newButton, newCard, newLetterbox, newPicture, newPlacementId, newPrivacy, newSearch, newShelf } from '~~/core/page/insert'
import { insertBlocks, insertShelf } from './commands'
import { buttonsAt } from './neighbours'

/** Something that can be put on a page besides files. */
export interface Addable {
  name: string
  words: string
  hint: string
  icon: string
  /** further words it is found by */
  also: string
  /** it belongs just where the caret is: it is offered before files */
  here?: boolean
  add: (editor: Editor) => void
}

const make = (editor: Editor, name: string, attrs: Record<string, unknown> | null = null, content?: Node | Node[]) =>
  editor.schema.nodes[name]!.create(attrs, content)
const line = (editor: Editor) => make(editor, 'paragraph')
const columns = (editor: Editor, count: number) =>
  insertBlocks(editor, [
    make(
      editor,
      'columns',
      null,
      Array.from({ length: count }, () => make(editor, 'column', null, line(editor))),
    ),
  ])

const row = (editor: Editor, cell: 'tableHeader' | 'tableCell') =>
  make(
    editor,
    'tableRow',
    null,
    Array.from({ length: 3 }, () => make(editor, cell, null, line(editor))),
  )

/** Selected blocks get a section around them; without a selection a new one is put in. */
function addSection(editor: Editor): void {
  const { doc, selection, tr } = editor.state
  const { $from, $to, empty } = selection
  const layouts = ['section']
  const chosen: Node[] = []
  if (!empty && selection instanceof TextSelection)
    for (let index = $from.index(0); index <= $to.index(0); index++) chosen.push(doc.child(index))
  if (!chosen.length || chosen.some(node => layouts.includes(node.type.name))) {
    insertBlocks(editor, [make(editor, 'section', null, line(editor))])
    return
  }
  const [from, to] = [$from.before(1), $to.after(1)]
  tr.replaceWith(from, to, make(editor, 'section', null, chosen))
  editor.view.dispatch(closeHistory(tr.setSelection(TextSelection.near(tr.doc.resolve(from + 1)))))
}

/** A list of the catalogue there is, where there is one only; with a card as it suits its fields. */
function addList(editor: Editor): void {
  const [first, ...more] = useCatalogues().tables
  const catalogue = more.length ? undefined : first
  const card = catalogue ? firstCard(catalogue.fields, catalogue.layout !== null) : [{ type: 'paragraph' }]
  const content = card.map(block => editor.schema.nodeFromJSON(block))
  insertBlocks(editor, [make(editor, 'entryList', { ...newList(newPlacementId(), catalogue?.id ?? null) }, content)])
}

/** Puts what each entry has in a field where the caret is. */
function addField(editor: Editor, field: Pick<Field, 'id' | 'name' | 'kind'>): void {
  if (field.kind === 'picture') insertBlocks(editor, [make(editor, 'picture', { ...newPicture(null), field: field.id })])
  else if (field.kind === 'file' || field.id === OWN_PAGE)
    insertBlocks(editor, [make(editor, 'downloadButton', { ...newButton({ kind: 'field', field: field.id }, field.name) })])
  else editor.view.dispatch(closeHistory(editor.state.tr.replaceSelectionWith(make(editor, 'field', { field: field.id }), true)))
}

/** Fields that can be put where the caret is, each as something to add. */
function fieldsHere(editor: Editor): Addable[] {
  const catalogue = useCatalogues().byId.get(catalogueAround(editor.state.doc, editor.state.selection.from) ?? '')
  if (!catalogue) return []
  const page =
    catalogue.layout && usesOwnPage(editor) ? [{ id: OWN_PAGE, name: `Page of the ${catalogue.one}`, kind: 'link' as const }] : []
  return [...catalogue.fields, ...page].map(field => ({
    name: `field-${field.id}`,
    words: field.name,
    hint: `What each ${catalogue.one} has: ${isFileKind(field.kind) ? 'its file' : KIND_WORDS[field.kind].title.toLowerCase()}`,
    also: 'field',
    here: true,
    icon: field.id === OWN_PAGE ? mdiFormTextbox : KIND_WORDS[field.kind].icon,
    add: current => addField(current, field),
  }))
}

/** Values of the whole site, each as something to add where the caret is. */
const siteValues = (): Addable[] =>
  (useCatalogues().ofSite?.fields ?? [])
    .filter(({ id }) => id !== TITLE)
    .map(field => ({
      name: `site-${field.id}`,
      words: field.name,
      hint: 'A value of the whole site, kept once',
      also: 'site value',
      here: false,
      icon: KIND_WORDS[field.kind].icon,
      add: editor =>
        editor.view.dispatch(closeHistory(editor.state.tr.replaceSelectionWith(make(editor, 'siteValue', { field: field.id }), true))),
    }))

/** On its own page a button to that would lead nowhere further. */
const usesOwnPage = (editor: Editor) => {
  const { $from } = editor.state.selection
  return Array.from({ length: $from.depth }, (_, depth) => $from.node(depth + 1)).some(node => node.type.name === 'entryList')
}

export const ADDABLE: Addable[] = [
  {
    name: 'heading',
    words: 'Heading',
    hint: 'Names what follows',
    also: 'title',
    icon: mdiFormatHeader2,
    add: editor => insertBlocks(editor, [make(editor, 'heading', { level: 2 })]),
  },
  {
    name: 'list',
    words: 'List',
    hint: 'Points, one below the other',
    also: 'bullets',
    icon: mdiFormatListBulleted,
    add: editor => insertBlocks(editor, [make(editor, 'bulletList', null, make(editor, 'listItem', null, line(editor)))]),
  },
  {
    name: 'quote',
    words: 'Quote',
    hint: 'What somebody said',
    also: 'citation',
    icon: mdiFormatQuoteClose,
    add: editor => insertBlocks(editor, [make(editor, 'blockquote', null, line(editor))]),
  },
  {
    name: 'row',
    words: 'Row of buttons',
    hint: 'Side by side as far as there is room',
    also: 'group',
    icon: mdiButtonPointer,
    add: editor =>
      insertBlocks(editor, [make(editor, 'buttonRow', null, make(editor, 'downloadButton', buttonsAt(editor).create(null, '')))]),
  },
  {
    name: 'shelf',
    words: 'Shelf',
    hint: 'The files of a folder, or chosen ones',
    also: 'list of files folder',
    icon: mdiViewListOutline,
    add: editor => insertShelf(editor, null),
  },
  {
    name: 'list',
    words: 'List of entries',
    hint: 'The rows of a catalogue as cards, lines or a table',
    also: 'catalogue products courses cards entries',
    icon: mdiViewGridOutline,
    add: editor => addList(editor),
  },
  {
    name: 'search',
    words: 'Search field',
    hint: 'Visitors find files by their names and words',
    also: 'find look for',
    icon: mdiMagnify,
    add: editor => insertBlocks(editor, [make(editor, 'search', { ...newSearch() })]),
  },
  {
    name: 'letterbox',
    words: 'Letterbox',
    hint: 'Visitors hand files in; nobody but you sees them',
    also: 'upload form send back return contract receive files',
    icon: mdiMailboxOutline,
    add: editor => insertBlocks(editor, [make(editor, 'letterbox', { ...newLetterbox() })]),
  },
  {
    name: 'privacy',
    words: 'Privacy words',
    hint: 'What this site keeps of its visitors, always as it is',
    also: 'data protection gdpr cookies law',
    icon: mdiShieldAccountOutline,
    add: editor => insertBlocks(editor, [make(editor, 'privacy', { ...newPrivacy() })]),
  },
  {
    name: 'gallery',
    words: 'Gallery',
    hint: 'A folder as pictures, each seen large when pressed',
    also: 'photos pictures images shelf',
    icon: mdiImageMultipleOutline,
    add: editor => insertBlocks(editor, [make(editor, 'shelf', { ...newShelf(null), layout: 'pictures' })]),
  },
  {
    name: 'card',
    words: 'Card',
    hint: 'A file with its picture and what it is',
    also: 'file product',
    icon: mdiCardTextOutline,
    add: editor => insertBlocks(editor, [make(editor, 'fileCard', newCard(null))]),
  },
  {
    name: 'picture',
    words: 'Picture',
    hint: 'From the library',
    also: 'photo image',
    icon: mdiImageOutline,
    add: editor => insertBlocks(editor, [make(editor, 'picture', newPicture(null))]),
  },
  {
    name: 'table',
    words: 'Table',
    hint: 'Rows and columns, such as opening hours',
    also: 'grid prices',
    icon: mdiTable,
    add: editor =>
      insertBlocks(editor, [make(editor, 'table', null, [row(editor, 'tableHeader'), row(editor, 'tableCell'), row(editor, 'tableCell')])]),
  },
  {
    name: 'columns2',
    words: 'Two columns',
    hint: 'One below the other on phones',
    also: 'layout side',
    icon: mdiViewSplitVertical,
    add: editor => columns(editor, 2),
  },
  {
    name: 'columns3',
    words: 'Three columns',
    hint: 'One below the other on phones',
    also: 'layout side',
    icon: mdiViewColumnOutline,
    add: editor => columns(editor, 3),
  },
  {
    name: 'fold',
    words: 'Fold-out',
    hint: 'A question; what is below it shows when it is pressed',
    also: 'faq answer details hidden unfold',
    icon: mdiUnfoldMoreHorizontal,
    add: editor => insertBlocks(editor, [make(editor, 'fold', null, [make(editor, 'foldTitle'), line(editor)])]),
  },
  {
    name: 'section',
    words: 'Section',
    hint: 'With a background of its own; around what is selected',
    also: 'band background tone',
    icon: mdiRectangleOutline,
    add: addSection,
  },
  {
    name: 'divider',
    words: 'Divider',
    hint: 'A thin line',
    also: 'rule separator',
    icon: mdiMinus,
    add: editor => insertBlocks(editor, [make(editor, 'horizontalRule')]),
  },
  {
    name: 'space',
    words: 'Space',
    hint: 'Room between two things',
    also: 'gap spacer',
    icon: mdiArrowExpandVertical,
    add: editor => insertBlocks(editor, [make(editor, 'space')]),
  },
]

/** What is found by the beginnings of its words: what entries have first, where they are laid out. */
export function addableAt(editor: Editor, text: string): Addable[] {
  const pieces = text.toLowerCase().split(/\s+/).filter(Boolean)
  return [...fieldsHere(editor), ...ADDABLE, ...siteValues()].filter(({ words, also }) =>
    pieces.every(piece =>
      `${words} ${also}`
        .toLowerCase()
        .split(' ')
        .some(word => word.startsWith(piece)),
    ),
  )
}
