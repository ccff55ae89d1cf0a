import { until } from '@vueuse/core'
import type { Virtualizer } from '@tanstack/vue-virtual'
import { nextTick, ref, watch, type Ref } from 'vue'
import type { FileWindow } from '~/composables/fileWindow'
import type { Rows } from './rows'

interface LineFocusOptions {
  scroller: Ref<HTMLElement | undefined>
  rows: Ref<Rows>
  main: Ref<FileWindow | undefined>
  virtualizer: () => Virtualizer<HTMLElement, Element>
  /** a list is called that holds no line */
  onEmpty: () => void
}

/** Where the keyboard stands in the library's lines. It stays there while the lists change, and goes on in the list that is shown next. */
export function useLineFocus({ scroller, rows, main, virtualizer, onEmpty }: LineFocusOptions) {
  const listing = useListing()
  const folders = useFolders()
  /** the line the keyboard stands on */
  const active = ref(0)
  /** where a stretch that is chosen with Shift begins */
  const anchor = ref(0)
  /** which of the tiles in it */
  const tile = ref(0)

  const within = (index: number) => Math.max(0, Math.min(rows.value.count - 1, index))
  const holds = () => !!scroller.value?.contains(document.activeElement)

  async function focusLine(index: number) {
    active.value = index
    virtualizer().scrollToIndex(index)
    await nextTick()
    const links = scroller.value?.querySelectorAll<HTMLElement>(`[data-line="${index}"] a.title`) ?? []
    links[Math.min(tile.value, links.length - 1)]?.focus()
  }

  async function focusActive() {
    if (rows.value.count) await focusLine(active.value)
    else onEmpty()
  }

  async function focusWhenThere() {
    const from = document.activeElement
    await nextTick()
    await until(() => main.value?.query === listing.queryFor() && main.value.state.loaded && folders.loaded).toBe(true)
    await nextTick()
    // Whoever went elsewhere meanwhile is not called back.
    const now = document.activeElement
    if (now === from || now === document.body || holds()) await focusActive()
  }

  function onFocus(event: FocusEvent) {
    const line = (event.target as HTMLElement).closest<HTMLElement>('[data-line]')
    if (line) active.value = Number(line.dataset.line)
  }

  // There is always a line the keyboard can come to.
  watch(rows, () => (active.value = within(active.value)))

  // Another list begins at its top; the keyboard goes on in it, where it stood in the one before.
  watch(
    () => listing.queryFor(),
    () => {
      const held = holds()
      scroller.value?.scrollTo({ top: 0 })
      active.value = 0
      anchor.value = 0
      if (held) void focusWhenThere()
    },
  )
  watch(
    () => useBoards().libraryCalled,
    () => void focusWhenThere(),
  )

  return { active, anchor, tile, within, holds, focusLine, focusActive, onFocus }
}
