import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { Clash, ClashWay } from '~~/core/files/clash'

/** The question what becomes of files whose names are taken. */
export const useClashes = defineStore('clashes', () => {
  const open = shallowRef<{ clashes: Clash[]; answer: (ways: Map<string, ClashWay> | undefined) => void }>()

  /** Resolves with a way for each name; with nothing, where the owner would rather not. */
  function ask(clashes: Clash[]): Promise<Map<string, ClashWay> | undefined> {
    return new Promise(resolve => {
      open.value = {
        clashes,
        answer: ways => {
          open.value = undefined
          resolve(ways)
        },
      }
    })
  }

  return { open, ask }
})
