import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api } from '~/composables/api'
import { useLibrary } from './library'

const EVERY = 1200

/** How far the reading of files has come; while it goes on, lists are shown anew as it does. */
export const useReading = defineStore('reading', () => {
  const progress = ref<{ waiting: number; failed: number; now: string | null }>({ waiting: 0, failed: 0, now: null })
  let timer: ReturnType<typeof setTimeout> | undefined

  async function load() {
    clearTimeout(timer)
    const before = progress.value
    progress.value = await api('/reading')
    // A connection that is lost is said elsewhere.
    if (progress.value.waiting) timer = setTimeout(() => void load().catch(() => undefined), EVERY)
    if (before.waiting !== progress.value.waiting || before.failed !== progress.value.failed) await useLibrary().refresh()
  }

  /** Reads some files again, or all that could not be read. */
  async function again(files?: string[]) {
    await api('/reading/again', 'POST', { files })
    await load()
  }

  return { progress, load, again }
})
