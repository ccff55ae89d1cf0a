import { defineStore } from 'pinia'
import { useMediaQuery } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

const KEY = 'trough-boards'
const LEAST = 300

/** How the two boards share the window; kept from one visit to the next. */
export const useBoards = defineStore('boards', () => {
  const saved = JSON.parse(localStorage.getItem(KEY) ?? '{}')
  /** pixels of the library board */
  const width = ref<number>(saved.width ?? 460)
  const keptFolded = ref<'none' | 'library' | 'work'>(saved.folded ?? 'none')
  const narrow = useMediaQuery('(max-width: 799px)')
  /** A narrow screen shows one board at a time: none is folded away beside it. */
  const folded = computed({ get: () => (narrow.value ? 'none' : keptFolded.value), set: to => (keptFolded.value = to) })
  /** the one board that shows on a narrow screen */
  const front = ref<'library' | 'work'>('work')
  const keysShown = ref(false)
  /** counts how often the keyboard was sent to the library's list */
  const libraryCalled = ref(0)

  /** Brings the library to the front, and the keyboard to its list. */
  function toLibrary() {
    front.value = 'library'
    if (folded.value === 'library') folded.value = 'none'
    libraryCalled.value++
  }

  watch([width, keptFolded], () => localStorage.setItem(KEY, JSON.stringify({ width: width.value, folded: keptFolded.value })))

  function resize(to: number) {
    width.value = Math.round(Math.min(Math.max(to, LEAST), Math.max(LEAST, window.innerWidth - 420)))
  }

  return { width, folded, front, keysShown, libraryCalled, toLibrary, resize, least: LEAST }
})
