import StarterKit from '@tiptap/starter-kit'
import { Placeholder } from '@tiptap/extensions'
import Blockquote from '@tiptap/extension-blockquote'
import { Caret } from './caret'
import { EdgeRules } from './edge'
import { EntryList, FieldInline, SiteValueInline } from './entries'
import { Ghost } from './ghost'
import { ButtonRow, Column, Columns, Fold, FoldTitle, PageRoot, Section, Space } from './layout'
import { SectionPictures } from './sectionPictures'
import { tableExtensions } from './table'
import { DownloadButton, DownloadLink, FileCard, FreshPlacements, Letterbox, Picture, Privacy, Search, Shelf } from './placements'

/** What a page can hold: just what `core/page/schema` knows. */
export const pageExtensions = [
  PageRoot,
  StarterKit.configure({
    heading: { levels: [2, 3, 4] },
    document: false,
    blockquote: false,
    code: false,
    codeBlock: false,
    link: false,
    strike: false,
    underline: false,
    // The page draws its own drop mark, and a line added at the end would change pages by opening them.
    dropcursor: false,
    trailingNode: false,
  }),
  Placeholder.configure({
    placeholder: ({ editor }) =>
      editor.storage.edge.edge === 'head'
        ? 'Drop a file here for the menu, or type / for a page or an address.'
        : 'Write here. Type / for a file, or drop one.',
  }),
  // Words only: a button in a quote would be no quote.
  Blockquote.extend({ content: 'paragraph+' }),
  Section,
  Columns,
  Column,
  Fold,
  FoldTitle,
  ButtonRow,
  Space,
  ...tableExtensions,
  DownloadButton,
  Privacy,
  Search,
  Letterbox,
  Shelf,
  FileCard,
  Picture,
  DownloadLink,
  EntryList,
  FieldInline,
  SiteValueInline,
  FreshPlacements,
  EdgeRules,
  Ghost,
  SectionPictures,
  Caret,
]
