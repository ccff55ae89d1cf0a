import { ref } from 'vue'
import { wordsOf } from './api'

/**
 * Sends a door's form and leads to the desk; what is wrong is shown, and the form stays as it was. Sending gives false where more is asked
 * for.
 */
export function useDoor(send: () => Promise<unknown>) {
  const error = ref('')
  const busy = ref(false)

  async function enter() {
    busy.value = true
    error.value = ''
    try {
      if ((await send()) === false) busy.value = false
      else window.location.assign('/desk')
    } catch (caught) {
      error.value = wordsOf(caught)
      busy.value = false
    }
  }

  return { error, busy, enter }
}
