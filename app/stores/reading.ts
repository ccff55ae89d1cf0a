import { defineStore } from 'pinia'
import { ref } from 'vue'
import { z } from 'zod'
import { ask, tell } from '~/composables/api'
import { useLibrary } from './library'

const progressSchema = z.object({ waiting: z.number(), failed: z.number(), now: z.string().nullable() })

/** How far the reading of files has come; while it goes on, lists are shown anew as it does. */
export const useReading = defineStore('reading', () => {
  const progress = ref<z.infer<typeof progressSchema>>({ waiting: 0, failed: 0, now: null })

  async function load() {
    const before = progress.value
    progress.value = await ask(progressSchema, '/reading')
    if (before.waiting !== progress.value.waiting || before.failed !== progress.value.failed) await useLibrary().refresh()
  }

  /** Reads some files again, or all that could not be read. */
  async function again(files?: string[]) {
    await tell('/reading/again', 'POST', { files })
    await load()
  }

  return { progress, load, again }
})
