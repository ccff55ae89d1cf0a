import { createEventHook, createInjectionState } from '@vueuse/core'
import { nextTick, onBeforeUnmount, onMounted, ref, type Ref } from 'vue'
import { titleFromFileName } from '~~/core/files/fileName'
import { menuTitle } from '~~/core/page/edges'
import type { PageItem } from '~~/core/page/pageItem'
import type { Target } from '~~/core/page/schema'
import { givePlacement, insertButton, insertSeveral, placeAgain } from '~/editor/commands'
import { menuPlace } from '~/editor/edge'
import { useArranging } from './arranging'
import { targetOf, useArriving } from './arriving'
import { useDropping } from './dropping'
import { useFilling } from './filling'
import { useFinding } from './finding'
import { useMargin } from './margin'
import { useOpening } from './opening'
import { usePasting } from './pasting'
import { useScreen } from './screen'
import { useWriting } from './writing'

interface BenchOptions {
  id: string
  /** the placement to begin at */
  at: () => string | undefined
  /** what the sheet and the margin scroll in */
  scroll: Ref<HTMLElement | undefined>
  /** what the sheet has room in */
  column: Ref<HTMLElement | undefined>
}

/** The bench of one page: its editor, and all that is done on the sheet and in the margin. */
const [provideBench, injectBench] = createInjectionState(({ id, at, scroll, column }: BenchOptions) => {
  const page = usePage()
  const placer = usePlacer()
  const sheet = ref<HTMLElement>()
  const screen = useScreen(column)
  /** the settings of what is selected */
  const note = ref<{ focus: () => void }>()

  const margin = useMargin(sheet)
  const editor = useWriting({
    onSlash: position => finding.open('place', position),
    onEnter: () => note.value?.focus(),
    onPaste: clipboard => paste(clipboard),
    onTransaction(current, byOwner) {
      if (byOwner) margin.settingsCalled.value = false
      margin.follow(current)
    },
  })
  const arriving = useArriving(id, editor)
  const arranging = useArranging(id, editor)
  const dropping = useDropping({ editor, arriving, arranging })
  const filling = useFilling(editor)
  const finding = useFinding({ editor, sheet, arriving })
  const paste = usePasting({ editor, selected: margin.selected, arriving, dropping })
  const opening = useOpening({
    id,
    at,
    editor,
    selected: () => margin.selected.value?.attrs.placement,
    onOpen: () => (margin.settingsCalled.value = true),
  })

  const focus = () => editor.value?.view.focus()
  const previewing = ref(false)
  /** What was written last is on the preview, too. */
  async function preview() {
    await page.save()
    previewing.value = !previewing.value
    if (previewing.value) return
    // What is not shown yet takes no focus.
    await nextTick()
    focus()
  }
  /** the settings of the page are asked for */
  const called = createEventHook<void>()
  function callSettings() {
    previewing.value = false
    margin.settingsCalled.value = true
    void called.trigger()
  }

  /** Pages of the menu become items that can be moved, and stay before what is placed already. */
  function placePages(pages: PageItem[]) {
    const items = pages.map(each => ({ target: { kind: 'page' as const, id: each.id }, label: menuTitle(each, useSpeech().speech) }))
    insertSeveral(editor.value!, items, 'row', menuPlace(editor.value!.state.doc))
    focus()
  }

  /** The same button with the next file; the keyboard is on it, ready for one more. */
  function again(target: Target, title: string) {
    placeAgain(editor.value!, margin.selected.value!.attrs.placement, target, title)
    focus()
  }

  /** The same button for files of the computer, one below the other. */
  async function againFromComputer() {
    let last: string | undefined = margin.selected.value!.attrs.placement
    for (const file of await chooseFiles({ multiple: true })) {
      last = last && placeAgain(editor.value!, last, null, titleFromFileName(file.name))
      if (last) arriving.send(last, file)
    }
    focus()
  }

  async function retargetFromComputer() {
    const { placement } = margin.selected.value!.attrs
    const [file] = await chooseFiles({ multiple: false })
    if (file) arriving.send(placement, file)
  }

  useEventListener(window, 'keydown', event => {
    if (!(event.ctrlKey || event.metaKey)) return
    const key = event.key.toLowerCase()
    if (key === 'u' && !event.shiftKey) void placer.current?.placeFromComputer()
    else if (key === 'k' && event.shiftKey && !editor.value?.state.selection.empty) finding.open('link')
    else return
    event.preventDefault()
  })

  const opened = opening.load()
  onMounted(async () => {
    await opened
    placer.current = {
      pageId: id,
      give: (placement, to) => givePlacement(editor.value!, placement, to),
      place(file) {
        insertButton(editor.value!, targetOf(file), file.title)
        // With the mouse on another board the page has to say where the button went.
        focus()
      },
      placeFromComputer: async () => arriving.buttons(await chooseFiles({ multiple: true })),
      focus,
    }
  })
  onBeforeUnmount(() => (placer.current = undefined))

  return {
    editor,
    sheet,
    screen,
    scroll,
    note,
    margin,
    arranging,
    dropping,
    filling,
    finding,
    opening,
    previewing,
    preview,
    callSettings,
    onSettings: called.on,
    placePages,
    again,
    againFromComputer,
    retargetFromComputer,
    focus,
  }
})

export { provideBench }

/** The bench of the page that is open around here. */
export const useBench = () => injectBench()!
