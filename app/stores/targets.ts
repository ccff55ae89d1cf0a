import { z } from 'zod'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { bundleUseSchema } from '~~/core/bundle/retarget'
import { useSchema } from '~~/core/files/fileItem'
import type { Target } from '~~/core/page/schema'
import { ask, tell } from '~/composables/api'
import { counted } from '~/composables/format'
import type { Replaced } from '~/editor/past'
import { useLibrary } from './library'
import { useNotices } from './notices'
import { usePage } from './page'
import { usePages } from './pages'

const placesSchema = z.object({ uses: z.array(useSchema), bundles: z.array(bundleUseSchema) })
const replacedSchema = z.object({ places: z.number(), undo: z.string() })

/** A target with what it is called. */
export interface Named {
  target: Target
  title: string
}

/** Where targets are led to, and leading all of that elsewhere. */
export const useTargets = defineStore('targets', () => {
  /** Where a target is led to or shown, and bundles that hold it. */
  const places = (target: Target) => ask(placesSchema, '/targets/places', 'POST', target)

  /** by what the replacement went that was taken back last */
  const taken = ref('')

  /** Changes pages, what is being written with them, and shows what has changed. */
  async function change(act: () => Promise<Replaced | undefined>) {
    await usePage().changedBy(act)
    await Promise.all([useLibrary().refresh(), usePages().load()])
  }

  const putInPlace = (from: Named, to: Named | null) =>
    ask(replacedSchema, '/targets/replace', 'POST', { from: from.target, to: to && to.target })

  /** Whatever a replacement led elsewhere leads where it led before. */
  const takeBack = (undo: string) =>
    change(async () => {
      await tell('/targets/take-back', 'POST', { undo })
      taken.value = undo
      return undefined
    })

  /** A replacement that was undone is done once more; it knows then by what it is taken back. */
  const replaceAgain = (replaced: Replaced) =>
    change(async () => {
      replaced.undo = (await putInPlace(replaced.from, replaced.to)).undo
      return undefined
    })

  /** Puts a target in the place of one everywhere, or takes what leads to it off where that is null; can be taken back from the notice. */
  async function replace(from: Named, to: Named | null) {
    let places = 0
    let undo = ''
    await change(async () => {
      ;({ places, undo } = await putInPlace(from, to))
      return { from, to, undo }
    })
    const many = counted(places, 'place')
    const words = !to
      ? `${many} that led to “${from.title}” ${places === 1 ? 'is' : 'are'} taken off.`
      : to.target.kind === 'file' && from.target.kind === 'file'
        ? `“${to.title}” is in ${many} now where “${from.title}” was.`
        : `${many} ${places === 1 ? 'leads' : 'lead'} to “${to.title}” now, no longer to “${from.title}”.`
    useNotices().say(words, { tone: 'works', action: { label: 'Undo', run: () => takeBack(undo) } })
  }

  return { taken, places, replace, replaceAgain, takeBack }
})
