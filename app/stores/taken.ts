import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

/** Counts the times at which the server said that something was taken, so that what shows downloads follows. */
export const useTaken = defineStore('taken', () => ({ changes: shallowRef(0) }))
