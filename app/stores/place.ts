import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { FileItem } from '~~/core/files/item'

/** What the open page's editor offers to the rest of the desk. */
export interface Placer {
  /** puts a button for the file where the caret is */
  place: (file: FileItem) => void
  /** lets the owner choose a file of the computer and puts a button for it there */
  placeFromComputer: () => Promise<void>
  focus: () => void
}

/** The editor that placing goes to; none while no page is open. */
export const usePlacer = defineStore('placer', () => ({ current: shallowRef<Placer>() }))
