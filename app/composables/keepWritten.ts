import { useEventListener } from '@vueuse/core'
import { toValue, type MaybeRefOrGetter } from 'vue'
import { onBeforeRouteLeave } from 'vue-router'
import { LEAVING } from './form'

/**
 * Asks before a board is left on which something was written that was not sent.
 *
 * @param sent waits for what is on its way
 */
export function useKeepWritten(changed: MaybeRefOrGetter<boolean>, sent?: () => Promise<unknown>): void {
  const asking = useAsking()
  // Leaving takes two steps where the address is completed on the way: it is asked once.
  let leaves = false

  onBeforeRouteLeave(async () => {
    await sent?.()
    if (!toValue(changed)) return true
    leaves ||= await asking.ask(LEAVING)
    return leaves
  })
  useEventListener(window, 'beforeunload', event => toValue(changed) && event.preventDefault())
}
