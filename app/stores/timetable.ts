import { z } from 'zod'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { timedItemSchema, type TimedAct, type TimedItem } from '~~/core/timetable/timedItem'
import { ask, tell } from '~/composables/api'
import { momentWords } from '~/composables/format'
import { useNotices } from './notices'
import { useSession } from './session'

const listSchema = z.object({ items: z.array(timedItemSchema) })

/** What is set to happen by itself. */
export const useTimetable = defineStore('timetable', () => {
  const items = ref<TimedItem[]>([])

  async function load() {
    items.value = (await ask(listSchema, '/timetable')).items
  }

  /** What is set for a file, or for a signpost. */
  const forFile = (id: string) => items.value.find(({ act }) => act.kind === 'edition' && act.file === id)
  /** What is set for an entry, the first first. */
  const forEntry = (id: string) => items.value.filter(({ act }) => act.kind === 'entry' && act.entry === id)
  const forSignpost = (id: string) => items.value.find(({ act }) => act.kind === 'signpost' && act.signpost === id)

  async function drop(id: string) {
    await tell(`/timetable/${id}`, 'DELETE')
    await load()
  }

  /** @param at as clocks show it where the site is */
  async function set(act: TimedAct, at: string) {
    const made = await ask(timedItemSchema, '/timetable', 'POST', { act, at })
    await load()
    useNotices().say(`Set for ${momentWords(made.at, useSession().site.timeZone)}. It happens by itself.`, {
      tone: 'works',
      action: { label: 'Undo', run: () => drop(made.id) },
    })
  }

  return { items, load, forFile, forSignpost, forEntry, set, drop }
})
