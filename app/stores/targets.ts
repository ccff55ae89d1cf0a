import { z } from 'zod'
import { defineStore } from 'pinia'
import { bundleUseSchema } from '~~/core/bundle/retarget'
import { useSchema } from '~~/core/files/fileItem'
import type { Target } from '~~/core/page/schema'
import { ask, tell } from '~/composables/api'
import { counted } from '~/composables/format'
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

  /** Shows what has changed on pages, the open one among them. */
  async function refresh() {
    usePage().readAnew()
    await Promise.all([useLibrary().refresh(), usePages().load()])
  }

  /** Puts a target in the place of one everywhere, or takes what leads to it off where that is null; can be taken back from the notice. */
  async function replace(from: Named, to: Named | null) {
    // What is being written comes with it.
    await usePage().settle()
    const { places, undo } = await ask(replacedSchema, '/targets/replace', 'POST', {
      from: from.target,
      to: to && to.target,
    })
    await refresh()
    const takeBack = async () => {
      await usePage().settle()
      await tell('/targets/take-back', 'POST', { undo })
      await refresh()
    }
    const many = counted(places, 'place')
    const words = !to
      ? `${many} that led to “${from.title}” ${places === 1 ? 'is' : 'are'} taken off.`
      : to.target.kind === 'file' && from.target.kind === 'file'
        ? `“${to.title}” is in ${many} now where “${from.title}” was.`
        : `${many} ${places === 1 ? 'leads' : 'lead'} to “${to.title}” now, no longer to “${from.title}”.`
    useNotices().say(words, { tone: 'works', action: { label: 'Undo', run: takeBack } })
  }

  return { places, replace }
})
