import { until, useEventListener } from '@vueuse/core'
import { ref } from 'vue'

/** Keeps a list as it is while something in it is pressed: what moves away between press and release gets no click. */
export function usePressing() {
  const pressed = ref(false)
  const end = () => {
    // The click comes after the release.
    setTimeout(() => (pressed.value = false))
  }
  useEventListener(window, ['pointerup', 'pointercancel'], end)
  return {
    press: () => {
      pressed.value = true
    },
    /** What is to be waited for before the list may change; undefined where nothing is pressed. */
    held: (): Promise<unknown> | undefined => (pressed.value ? until(pressed).toBe(false) : undefined),
  }
}
