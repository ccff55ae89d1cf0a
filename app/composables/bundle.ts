import { ref, watch } from 'vue'
import { bundleDetailsSchema, type BundleDetails, type BundleEntry, type BundleGated } from '~~/core/bundle/bundleEntry'
import { fileItemSchema, type FileItem } from '~~/core/files/fileItem'
import type { Selection } from '~~/core/files/selection'
import { ask, wordsOf } from './api'

/** Makes a bundle of a selection in the folder that is open. */
async function newBundle(title: string, selection: Selection): Promise<FileItem> {
  const bundle = await ask(fileItemSchema, '/bundles', 'POST', { ...selection, title, folder: useListing().folder })
  useLibrary().learn([bundle])
  await useLibrary().refresh()
  return bundle
}

/** Makes a bundle of files, to be placed. */
export const bundleOf = (files: FileItem[], title: string): Promise<FileItem> =>
  newBundle(title, { files: files.map(file => file.id), folders: [] })

/** Puts more into a bundle. */
export const addToBundle = (id: string, things: Selection): Promise<BundleDetails> =>
  ask(bundleDetailsSchema, `/bundles/${id}/add`, 'POST', things)

/** Makes a bundle of a selection in the folder that is open. An empty one is opened to be filled, unless that would leave a page. */
export async function makeBundle(title: string, selection: Selection): Promise<void> {
  const bundle = await newBundle(title, selection)
  const open = () => navigateTo(`/desk/files/${bundle.id}`)
  useSelection().clear()
  if (!usePlacer().current && !selection.files.length && !selection.folders.length) await open()
  else
    useNotices().say(`“${bundle.title}” is a bundle of ${wordsForSelection(selection) || 'nothing yet'}.`, {
      tone: 'works',
      action: { label: 'Open it', run: open },
    })
}

/** One bundle as it is composed; every act is written at once and can be undone. */
export function useBundle(id: () => string) {
  const bundle = ref<BundleDetails>()
  const failure = ref('')
  const library = useLibrary()
  const notices = useNotices()

  async function load(isLate = () => false) {
    try {
      const fresh = await ask(bundleDetailsSchema, `/bundles/${id()}`)
      if (isLate()) return
      bundle.value = fresh
      failure.value = ''
    } catch (error) {
      if (!isLate()) failure.value = wordsOf(error)
    }
  }
  watch(
    [id, () => library.changes],
    (_now, _before, onCleanup) => {
      let late = false
      onCleanup(() => (late = true))
      return load(() => late)
    },
    { immediate: true },
  )

  async function write(entries: BundleEntry[], gated?: BundleGated) {
    try {
      bundle.value = await ask(bundleDetailsSchema, `/bundles/${id()}`, 'PUT', { entries, revision: bundle.value!.revision, gated })
      library.learn([bundle.value.file])
    } catch (error) {
      notices.refused(error)
    }
    await library.refresh()
  }

  /** Composes it anew; with words, says so and offers to undo it. */
  async function compose(entries: BundleEntry[], words?: string) {
    const before = bundle.value!.entries
    await write(entries)
    if (words) notices.say(words, { action: { label: 'Undo', run: () => write(before) } })
  }

  async function add(selection: Selection) {
    try {
      bundle.value = await addToBundle(id(), selection)
      library.learn([bundle.value.file])
    } catch (error) {
      notices.refused(error)
    }
    await library.refresh()
  }

  /** Says what becomes of files in it that stand behind gates. */
  const setGated = (gated: BundleGated) => write(bundle.value!.entries, gated)

  return { bundle, failure, compose, add, setGated }
}
