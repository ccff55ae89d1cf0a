import { defineStore } from 'pinia'
import { ref } from 'vue'
import { comparisonSchema } from '~~/core/editions/comparison'
import { fileItemSchema, type EditionChange, type FileItem } from '~~/core/files/fileItem'
import { ask, tell, wordsOf } from '~/composables/api'
import type { LocalFile } from '~/composables/localFiles'
import { useLibrary } from './library'
import { useNotices } from './notices'
import { useTimetable } from './timetable'
import { useUploads } from './uploads'

/** An edition that waits; `only` lets just the button it was dropped on lead to it, as a file of its own. */
interface Waiting {
  file: FileItem
  number: number
  only?: (made: FileItem) => void
}

/** Next editions of files: brought in, held against what visitors get, and let take over. */
export const useEditions = defineStore('editions', () => {
  /** the edition that is being looked at */
  const open = ref<Waiting>()

  /** Shows an edition beside the one that visitors get. */
  function look(file: FileItem, number: number, only?: Waiting['only']) {
    open.value = { file, number, only }
  }

  /** Sends a file of the computer as the next edition of another, and shows the two side by side. */
  function bring({ id }: Pick<FileItem, 'id'>, local: LocalFile, only?: Waiting['only']) {
    useUploads().add([local], {
      edition: id,
      done: async () => {
        const file = await useLibrary().details(id)
        look(file, Math.max(...file.editions.map(edition => edition.number)), only)
      },
    })
  }

  /** Says something of an edition, or who gets it. */
  async function change({ file, number }: { file: FileItem; number: number }, changed: EditionChange) {
    await tell(`/files/${file.id}/editions/${number}`, 'PATCH', changed)
    await Promise.all([useLibrary().refresh(), useTimetable().load()])
  }

  /** Goes back to an earlier edition; can be taken back from the notice. */
  async function showEarlier({ file, number }: { file: FileItem; number: number }) {
    const [library, before] = [useLibrary(), file.edition]
    await library.showEdition(file.id, number)
    useNotices().say(`Visitors get edition ${number} now, from every button.`, {
      tone: 'works',
      action: { label: 'Undo', run: () => library.showEdition(file.id, before) },
    })
  }

  /** Lets it go live at a set time. */
  async function plan({ file, number }: { file: FileItem; number: number }, at: string) {
    await useTimetable().set({ kind: 'edition', file: file.id, number }, at)
    open.value = undefined
  }

  const compare = ({ file, number }: { file: FileItem; number: number }) =>
    ask(comparisonSchema, `/files/${file.id}/editions/${number}/comparison`)

  async function refreshed(act: () => Promise<unknown>) {
    await act()
    open.value = undefined
    await Promise.all([useLibrary().refresh(), useTimetable().load()])
  }

  /** Lets it take over: every button follows at once. */
  async function show({ file, number }: { file: FileItem; number: number }) {
    const before = file.edition
    await refreshed(() => useLibrary().showEdition(file.id, number))
    const takeBack = () =>
      useLibrary()
        .showEdition(file.id, before)
        .catch((error: unknown) => useNotices().say(wordsOf(error), { tone: 'attention' }))
    useNotices().say(`Visitors get the new “${file.title}” now, from every button.`, {
      tone: 'works',
      action: { label: 'Undo', run: takeBack },
    })
  }

  const discard = ({ file, number }: { file: FileItem; number: number }) =>
    refreshed(() => tell(`/files/${file.id}/editions/${number}`, 'DELETE'))

  async function split({ file, number }: Waiting): Promise<FileItem> {
    let made: FileItem | undefined
    await refreshed(async () => (made = await ask(fileItemSchema, `/files/${file.id}/editions/${number}/split`, 'POST')))
    useLibrary().learn([made!])
    return made!
  }

  async function keepBoth(waiting: Waiting) {
    const made = await split(waiting)
    useNotices().say(`“${made.title}” is a file of its own.`, {
      action: { label: 'Show it', run: () => navigateTo(`/desk/files/${made.id}`) },
    })
  }

  /** Leads just the button to it that it was dropped on. */
  const leadOnly = async (waiting: Waiting) => waiting.only?.(await split(waiting))

  return { open, look, bring, change, showEarlier, plan, compare, show, discard, keepBoth, leadOnly }
})
