import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { FileItem } from '~~/core/files/fileItem'
import { useLibrary } from './library'

/** Files picked up and waiting in the trough to be placed. */
export const useTray = defineStore('tray', () => {
  const ids = ref<string[]>([])
  const files = computed(() => ids.value.map(id => useLibrary().known.get(id)).filter((file): file is FileItem => !!file && !file.deleted))

  function pickUp(id: string) {
    ids.value = [id, ...ids.value.filter(other => other !== id)]
  }

  function putDown(id: string) {
    ids.value = ids.value.filter(other => other !== id)
  }

  return { files, pickUp, putDown, clear: () => (ids.value = []) }
})
