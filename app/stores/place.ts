import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { FileItem } from '~~/core/files/fileItem'
import type { PageDetails } from '~~/core/page/pageItem'
import type { Target } from '~~/core/page/schema'
import { giveTarget } from '~~/core/page/targets'
import { api } from '~/composables/api'

/** What the open page's editor offers to the rest of the desk. */
export interface Placer {
  pageId: string
  /** puts a button for the file where the caret is */
  place: (file: FileItem) => void
  /** lets the owner choose a file of the computer and puts a button for it there */
  placeFromComputer: () => Promise<void>
  /** gives a placement of the page its file */
  give: (placement: string, target: Target) => void
  focus: () => void
}

/** The editor that placing goes to; none while no page is open. */
export const usePlacer = defineStore('placer', () => {
  const current = shallowRef<Placer>()

  /** Gives a placement the file it was waiting for, also where its page was left meanwhile. */
  async function give(pageId: string, placement: string, target: Target): Promise<void> {
    if (current.value?.pageId === pageId) {
      current.value.give(placement, target)
      return
    }
    const { title, draft, revision } = await api<PageDetails>(`/pages/${pageId}`)
    const given = giveTarget(draft, placement, target)
    await api(`/pages/${pageId}/draft`, 'PUT', { title, draft: given, revision })
  }

  return { current, give }
})
