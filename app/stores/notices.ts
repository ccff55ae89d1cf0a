import { defineStore } from 'pinia'
import { ref } from 'vue'

export interface Notice {
  id: number
  text: string
  tone: 'plain' | 'works' | 'attention'
  action?: { label: string; run: () => unknown }
}

const STAYS = 9000

/** What just happened, in a corner, with a way to take it back. */
export const useNotices = defineStore('notices', () => {
  const items = ref<Notice[]>([])
  let last = 0

  function dismiss(id: number) {
    items.value = items.value.filter(notice => notice.id !== id)
  }

  function say(text: string, { tone = 'plain', action }: Partial<Pick<Notice, 'tone' | 'action'>> = {}) {
    const id = ++last
    items.value = [...items.value.slice(-3), { id, text, tone, action }]
    // What needs attention waits until it was read.
    if (tone !== 'attention') setTimeout(dismiss, STAYS, id)
  }

  return { items, say, dismiss }
})
