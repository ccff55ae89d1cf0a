import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { FileItem } from '~~/core/files/fileItem'
import { pageDetailsSchema } from '~~/core/page/pageItem'
import type { Target } from '~~/core/page/schema'
import type { ShelfSource } from '~~/core/shelf/shelfSource'
import { giveShelf, giveTarget } from '~~/core/page/targets'
import { ask, tell } from '~/composables/api'
import { usePage } from './page'

/** What a placement waited for: what a button leads to, or what a shelf lists. */
export type Given = Target | ShelfSource

/** What the open page's editor offers to the rest of the desk. */
export interface Placer {
  pageId: string
  /** puts a button for the file where the caret is */
  place: (file: FileItem) => void
  /** lets the owner choose a file of the computer and puts a button for it there */
  placeFromComputer: () => Promise<void>
  /** gives a placement of the page what it was waiting for */
  give: (placement: string, to: Given) => void
  focus: () => void
}

/** The editor that placing goes to; none while no page is open. */
export const usePlacer = defineStore('placer', () => {
  const current = shallowRef<Placer>()

  /** Gives a placement what it was waiting for, also where its page was left meanwhile. */
  async function give(pageId: string, placement: string, to: Given): Promise<void> {
    if (current.value?.pageId === pageId) {
      current.value.give(placement, to)
      return
    }
    await usePage().changedAt(pageId, async () => {
      const { title, draft, revision } = await ask(pageDetailsSchema, `/pages/${pageId}`)
      const given =
        to.kind === 'folder' || to.kind === 'files' || to.kind === 'found'
          ? giveShelf(draft, placement, to)
          : giveTarget(draft, placement, to)
      await tell(`/pages/${pageId}/draft`, 'PUT', { title, draft: given, revision })
    })
  }

  return { current, give }
})
