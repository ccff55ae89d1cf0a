import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { DeleteFile, FileItem } from '~~/core/files/fileItem'
import { writeLinks, type LinkFormat } from '~~/core/files/links'
import { gatesOf } from '~~/core/gate/standing'
import {
  dealtWithSchema,
  movedSchema,
  putInBinSchema,
  describedSchema,
  type Describe,
  type Moved,
  type Selection,
} from '~~/core/files/selection'
import { ask, tell } from '~/composables/api'
import { counted } from '~/composables/format'
import { useFolders } from './folders'
import { useLibrary } from './library'
import { useNotices } from './notices'
import { usePlacer } from './place'
import { useSession } from './session'
import { useTray } from './tray'

const changedSchema = z.object({ before: z.array(describedSchema) })
const zipSchema = z.object({ id: z.string() })

/** More at once would bury the page. */
const MOST_PLACED = 50

/** `2 files and 1 folder`. */
export function wordsForSelection({ files, folders }: Selection): string {
  return [...(files.length ? [counted(files.length, 'file')] : []), ...(folders.length ? [counted(folders.length, 'folder')] : [])].join(
    ' and ',
  )
}

/** The files and folders that were chosen, and what is done with them. */
export const useSelection = defineStore('selection', () => {
  const files = ref(new Set<string>())
  const folders = ref(new Set<string>())
  const chosen = computed<Selection>(() => ({ files: [...files.value], folders: [...folders.value] }))
  const count = computed(() => files.value.size + folders.value.size)
  const words = computed(() => wordsForSelection(chosen.value))

  function clear() {
    files.value = new Set()
    folders.value = new Set()
  }

  function choose({ files: fileIds, folders: folderIds }: Selection, { add = false } = {}) {
    files.value = new Set(add ? [...files.value, ...fileIds] : fileIds)
    folders.value = new Set(add ? [...folders.value, ...folderIds] : folderIds)
  }

  function toggle(kind: 'files' | 'folders', id: string) {
    const set = kind === 'files' ? files : folders
    const next = new Set(set.value)
    if (!next.delete(id)) next.add(id)
    set.value = next
  }

  const has = (kind: 'files' | 'folders', id: string) => (kind === 'files' ? files : folders).value.has(id)

  /** What an act on one thing means: the selection, where that thing is in it. */
  const around = (kind: 'files' | 'folders', id: string): Selection =>
    has(kind, id) ? chosen.value : { files: [], folders: [], [kind]: [id] }

  const { refresh, meet } = useLibrary()
  const notices = useNotices()

  async function undoMove({ groups, order }: Moved, to: string | null) {
    for (const group of groups) await tell('/selection/move', 'POST', group)
    if (order && to) await tell(`/folders/${to}/order`, 'PUT', { files: order })
    await refresh()
  }

  /** What is said of things of a selection that stand behind a gate and do not where they go; nothing where none does. */
  async function opened(selection: Selection, to: string | null): Promise<string> {
    const { tree } = useFolders()
    const things = [
      ...(await meet(selection.files)),
      ...selection.folders.flatMap(id => tree.get(id) ?? []).map(({ gate, parent }) => ({ gate, folder: parent })),
    ]
    const open = things.filter(thing => gatesOf(thing, tree).length && !gatesOf({ ...thing, folder: to }, tree).length).length
    if (!open) return ''
    return ` No gate stands before ${open === 1 ? 'one' : open} of them there: everyone may have ${open === 1 ? 'it' : 'them'}.`
  }

  async function move(selection: Selection, to: string | null, before?: string) {
    const open = await opened(selection, to)
    const moved = await ask(movedSchema, '/selection/move', 'POST', { ...selection, to, before })
    await refresh()
    clear()
    const renamed = moved.renamed.map(({ from, to: name }) => ` “${from}” is called “${name}” there.`).join('')
    const place = to === null ? 'the top of the library' : `“${useFolders().nameOf(to)}”`
    notices.say(before === undefined ? `${wordsForSelection(selection)} moved to ${place}.${renamed}${open}` : 'The order is changed.', {
      tone: open ? 'attention' : 'works',
      action: { label: 'Undo', run: () => undoMove(moved, to) },
    })
  }

  async function copy(selection: Selection, to: string | null) {
    const open = await opened(selection, to)
    const made = await ask(dealtWithSchema, '/selection/copy', 'POST', { ...selection, to })
    await refresh()
    notices.say(
      `${wordsForSelection(made)} made in ${to === null ? 'the top of the library' : `“${useFolders().nameOf(to)}”`}. The bytes are shared: copies take no room.${open}`,
      {
        tone: open ? 'attention' : 'works',
        action: {
          label: 'Undo',
          run: async () => {
            await tell('/selection/remove', 'POST', { ...made, despite: true })
            await refresh()
          },
        },
      },
    )
  }

  async function restore(selection: Selection, undo?: string) {
    const back = await ask(dealtWithSchema, '/selection/restore', 'POST', { ...selection, undo })
    await refresh()
    clear()
    notices.say(`${wordsForSelection(back)} restored.`, { tone: 'works' })
    return back
  }

  /** Puts things in the bin; throws where files are in use and no way on is chosen. */
  async function remove(selection: Selection, words: string, way: DeleteFile = {}) {
    const removed = await ask(putInBinSchema, '/selection/remove', 'POST', { ...selection, ...way })
    await refresh()
    clear()
    // What went with a folder comes back with it.
    const chosen = new Set(selection.files)
    const gone = { folders: selection.folders, files: removed.files.filter(id => chosen.has(id)) }
    notices.say(`${words} in the bin for ${counted(useSession().binDays, 'day')}.`, {
      action: { label: 'Undo', run: () => undoRemoving(gone, removed.undo) },
    })
  }

  /** Brings back what was deleted, with the places that were changed for that; without them where they were changed since. */
  async function undoRemoving(gone: Selection, undo: string | undefined) {
    try {
      await restore(gone, undo)
    } catch (error) {
      if (undo === undefined) throw error
      await restore(gone)
      notices.say(`The places that were changed for that stay as they are now. ${wordsOf(error)}`, { tone: 'attention' })
    }
  }

  async function describe(change: Partial<Describe>) {
    const { before } = await ask(changedSchema, '/selection/describe', 'POST', change)
    await refresh()
    notices.say(`${counted(before.length, 'file')} described.`, {
      tone: 'works',
      action: {
        label: 'Undo',
        run: async () => {
          await tell('/selection/describe', 'POST', { each: before })
          await refresh()
        },
      },
    })
  }

  /** Files of a selection in their order, those in its folders left out. */
  const filesOf = (selection: Selection): Promise<FileItem[]> => meet(selection.files)

  async function copyLinks(selection: Selection, format: LinkFormat) {
    const text = writeLinks(format, await filesOf(selection), useSession().fullAddress(''))
    if (await copyText(text, `The links are:\n${text}`))
      notices.say(`${counted(selection.files.length, 'link')} copied.`, { tone: 'works' })
  }

  async function placeAll(selection: Selection) {
    const { current } = usePlacer()
    if (!current) return
    const items = await filesOf(selection)
    items.slice(0, MOST_PLACED).forEach(file => current.place(file))
    if (items.length > MOST_PLACED)
      notices.say(`The first ${MOST_PLACED} are on the page; more at once would bury it.`, { tone: 'attention' })
  }

  async function pickUp(selection: Selection) {
    const items = await filesOf(selection)
    for (const file of items.toReversed()) useTray().pickUp(file.id)
    clear()
  }

  async function downloadZip(selection: Selection) {
    const zip = await ask(zipSchema, '/selection/zip', 'POST', selection)
    window.location.assign(`/api/selection/zip/${zip.id}`)
  }

  /** Downloads a folder, or the whole library, as a bag. */
  async function downloadBag(folder: string | null) {
    const zip = await ask(zipSchema, '/bag', 'POST', { folder })
    window.location.assign(`/api/selection/zip/${zip.id}`)
  }

  /** Does an act and says what kept it from being done. */
  async function attempt(act: () => Promise<unknown>) {
    try {
      await act()
    } catch (error) {
      notices.refused(error)
      await refresh().catch(() => undefined)
    }
  }

  return {
    files,
    folders,
    chosen,
    count,
    words,
    clear,
    choose,
    toggle,
    has,
    around,
    move,
    copy,
    restore,
    remove,
    describe,
    copyLinks,
    placeAll,
    pickUp,
    downloadZip,
    downloadBag,
    attempt,
  }
})
