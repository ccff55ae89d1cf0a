import { defineStore } from 'pinia'
import { ref } from 'vue'
import { wordsOf } from '~/composables/api'

export interface Notice {
  text: string
  tone: 'plain' | 'works' | 'attention'
  action?: { label: string; run: () => unknown }
}

/** What just happened, in a corner, with a way to take it back. */
export const useNotices = defineStore('notices', () => {
  /** those that were not shown yet */
  const waiting = ref<Notice[]>([])
  /** words of those that are to be seen */
  const seen = new Set<string>()

  /** Says it; what can only be read is not said again while it stands there. */
  function say(text: string, { tone = 'plain', action }: Partial<Pick<Notice, 'tone' | 'action'>> = {}) {
    if (!action && seen.has(text)) return
    seen.add(text)
    waiting.value = [...waiting.value, { text, tone, action }]
  }

  /** Says why something could not be done. */
  const refused = (error: unknown) => say(wordsOf(error), { tone: 'attention' })

  return { waiting, say, refused, gone: (text: string) => seen.delete(text) }
})
