import StarterKit from '@tiptap/starter-kit'
import { Placeholder } from '@tiptap/extensions'
import { DownloadButton, DownloadLink, FreshPlacements, Shelf } from './placements'

/** What a page can hold: just what `core/page/schema` knows. */
export const pageExtensions = [
  StarterKit.configure({
    heading: { levels: [2, 3, 4] },
    blockquote: false, code: false, codeBlock: false, horizontalRule: false, link: false, strike: false, underline: false,
    // The page draws its own drop mark, and a line added at the end would change pages by opening them.
    dropcursor: false, trailingNode: false,
  }),
  Placeholder.configure({ placeholder: 'Write here. Type / for a file, or drop one.' }),
  DownloadButton,
  Shelf,
  DownloadLink,
  FreshPlacements,
]
