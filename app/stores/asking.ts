import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

interface Question {
  question: string
  /** what comes of it */ detail?: string
  yes: string
  no: string
}

/** Asks before what cannot be taken back. */
export const useAsking = defineStore('asking', () => {
  const open = shallowRef<Question & { answer: (yes: boolean) => void }>()

  /** Whether the answer is yes; another question that is still open is answered with no. */
  function ask(question: Question): Promise<boolean> {
    open.value?.answer(false)
    return new Promise(resolve => {
      open.value = {
        ...question,
        answer: yes => {
          open.value = undefined
          resolve(yes)
        },
      }
    })
  }

  return { open, ask }
})
