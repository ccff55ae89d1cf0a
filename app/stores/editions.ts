import { defineStore } from 'pinia'
import { z } from 'zod'
import { ref } from 'vue'
import { comparisonSchema, type Comparison } from '~~/core/editions/comparison'
import { fileItemSchema, type EditionChange, type FileItem } from '~~/core/files/fileItem'
import { dateInName } from '~~/core/files/nameAdvice'
import { fittingLabel, type Spoken } from '~~/core/page/fittingLabel'
import type { Reworded } from '~~/core/walk/finding'
import { ask, tell } from '~/composables/api'
import type { LocalFile } from '~/composables/localFiles'
import { useLibrary } from './library'
import { useNotices } from './notices'
import { useTargets } from './targets'
import { useTimetable } from './timetable'
import { useUploads } from './uploads'

const undoSchema = z.object({ undo: z.string() })

/** A button or link with the words it has, and those that fit. */
export interface Relabelled extends Reworded {
  pageTitle: string
  before: string
}

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

  /** Buttons and links whose words speak of the edition that visitors get now, with those that fit the next one. */
  async function labelsOf({ file }: Waiting, { now, next }: Pick<Comparison, 'now' | 'next'>): Promise<Relabelled[]> {
    const spoken = ({ fileName }: { fileName: string }): Spoken => ({ title: file.title, dated: dateInName(fileName) })
    const { uses } = await useTargets().places({ kind: 'file', id: file.id })
    return uses.flatMap(use => {
      const words = ['button', 'link'].includes(use.kind) && use.pageId && fittingLabel(use.label, spoken(next), spoken(now))
      return words ? [{ page: use.pageId!, pageTitle: use.pageTitle, placement: use.placement, before: use.label, words }] : []
    })
  }

  /** Lets it take over: every button follows at once, with the labels that are given. */
  async function show({ file, number }: { file: FileItem; number: number }, labels: Relabelled[] = []) {
    const before = file.edition
    let undo = ''
    await refreshed(async () => {
      await useLibrary().showEdition(file.id, number)
      if (labels.length) ({ undo } = await ask(undoSchema, '/walk/reword', 'POST', { labels }))
    })
    const takeBack = () =>
      Promise.all([useLibrary().showEdition(file.id, before), undo && tell('/walk/take-back', 'POST', { undo })]).catch(
        useNotices().refused,
      )
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

  return { open, look, bring, change, showEarlier, plan, compare, labelsOf, show, discard, keepBoth, leadOnly }
})
