import { ref } from 'vue'
import { wordsOf } from './api'

/** Does what may be refused; the reason is shown beside what was tried, and gone with the next try. */
export function useAttempt() {
  const problem = ref('')

  async function attempt(act: () => Promise<unknown>): Promise<boolean> {
    problem.value = ''
    try {
      await act()
      return true
    } catch (error) {
      problem.value = wordsOf(error)
      return false
    }
  }

  return { problem, attempt }
}

/** Does what may be refused; the reason is said where notices stand. */
export const orSayWhy = (act: () => Promise<unknown>) => act().catch(useNotices().refused)
