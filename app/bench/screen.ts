import { useElementSize, useMediaQuery } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import { PAGE_WIDTHS, shownWidth, type ScreenName } from '~/editor/screens'

/** Below this words are too small to be worked on. */
const LEAST_ZOOM = 0.3

/** The screen that the sheet shows the page on, scaled to the board: it is laid out as on that screen, whatever room there is. */
export function useScreen(column: Ref<HTMLElement | undefined>) {
  const page = usePage()
  const narrow = useMediaQuery('(max-width: 799px)')
  const chosen = ref<ScreenName>()
  const screen = computed({ get: () => chosen.value ?? (narrow.value ? 'phone' : 'desktop'), set: to => (chosen.value = to) })
  /** the scale that was chosen; as large as fits where none was */
  const scale = ref<number | null>(null)

  const { width: room } = useElementSize(column)
  const shown = computed(() => shownWidth(screen.value, page.draft))
  const zoom = computed(() => scale.value ?? Math.max(LEAST_ZOOM, Math.min(1, (room.value || shown.value) / shown.value)))
  /** CSS pixels of the page's layout */
  const width = computed(() => PAGE_WIDTHS[screen.value])

  /** The size in which something is drawn, in the page's own CSS pixels. */
  const inPage = (pixels: number) => Math.round(pixels / zoom.value)

  return { screen, scale, zoom, shown, width, inPage }
}
