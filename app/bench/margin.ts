import type { Editor } from '@tiptap/vue-3'
import { NodeSelection } from '@tiptap/pm/state'
import { computed, ref, shallowRef, type Ref } from 'vue'
import type { LetterboxAttrs } from '~~/core/letterbox/letterbox'
import type { ButtonAttrs, CardAttrs, PictureAttrs, PrivacyAttrs, SearchAttrs, ShelfAttrs } from '~~/core/page/schema'
import { partsAround, type Part } from '~/editor/parts'

/** The selected button, link, card, shelf, search field, letterbox or picture. */
export type Selected =
  | { kind: 'button' | 'link'; attrs: ButtonAttrs }
  | { kind: 'card'; attrs: CardAttrs }
  | { kind: 'shelf'; attrs: ShelfAttrs }
  | { kind: 'search'; attrs: SearchAttrs }
  | { kind: 'letterbox'; attrs: LetterboxAttrs }
  | { kind: 'privacy'; attrs: PrivacyAttrs }
  | { kind: 'picture'; attrs: PictureAttrs }

const KINDS: Record<string, Selected['kind']> = {
  shelf: 'shelf',
  search: 'search',
  letterbox: 'letterbox',
  privacy: 'privacy',
  picture: 'picture',
  fileCard: 'card',
}

function selectedIn(editor: Editor): Selected | undefined {
  const { selection } = editor.state
  const block = selection instanceof NodeSelection ? selection.node : undefined
  // A section that leans on a picture, and a list, are parts, with the settings of such.
  if (block?.attrs.placement && block.type.name !== 'section' && block.type.name !== 'entryList')
    return { kind: KINDS[block.type.name] ?? 'button', attrs: block.attrs } as Selected
  if (editor.isActive('downloadLink')) return { kind: 'link', attrs: editor.getAttributes('downloadLink') as ButtonAttrs }
  // Right behind a link, where the caret is when words were just made one; what is typed there is none.
  const behind = selection.empty ? selection.$from.nodeBefore?.marks.find(({ type }) => type.name === 'downloadLink') : undefined
  return behind && { kind: 'link', attrs: behind.attrs as ButtonAttrs }
}

/** What stands beside the sheet: settings of what is selected and of what it lies in, at its height, or those of the page. */
export function useMargin(sheet: Ref<HTMLElement | undefined>) {
  const selected = ref<Selected>()
  /** what the caret or the selected block lies in, the inmost first */
  const parts = shallowRef<Part[]>([])
  /** pixels from the top of the sheet */
  const height = ref(0)
  /**
   * The margin shows the page's settings, whatever the caret is in, until it moves. So it does at first: the page is seen from its top, and
   * what is said of its end would be hard to place.
   */
  const settingsCalled = ref(true)
  const hasNote = computed(() => !settingsCalled.value && (!!selected.value || parts.value.length > 0))

  /** Keeps the margin with what is selected. */
  function follow(editor: Editor) {
    selected.value = selectedIn(editor)
    parts.value = partsAround(editor.state)
    if (!selected.value && !parts.value.length) return
    const origin = sheet.value?.getBoundingClientRect().top ?? 0
    height.value = Math.round(editor.view.coordsAtPos(editor.state.selection.from).top - origin)
  }

  return { selected, parts, height, hasNote, settingsCalled, follow }
}
