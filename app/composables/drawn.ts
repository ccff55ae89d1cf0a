import { ref, watch, type WatchSource } from 'vue'

/** Whether what has begun to be there was painted: what stands beside it comes after that, so that nobody waits for it. */
export function useDrawn(begun: WatchSource<unknown>) {
  const drawn = ref(false)
  watch(begun, now => now && requestAnimationFrame(() => requestAnimationFrame(() => (drawn.value = true))), { immediate: true })
  return drawn
}
