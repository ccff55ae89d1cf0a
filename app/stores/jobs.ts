import { hostListSchema } from '~~/core/files/fetchHosts'
import { z } from 'zod'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { ClashWay } from '~~/core/files/clash'
import { jobItemSchema, type JobItem } from '~~/core/jobs/jobItem'
import { createQueue } from '~~/core/queue'
import { ask, tell } from '~/composables/api'
import { counted } from '~/composables/format'
import { useLibrary } from './library'
import { useNotices } from './notices'
import { useTray } from './tray'

const listSchema = z.object({ items: z.array(jobItemSchema) })

/** Work of the server that the owner waits for: fetching from the web, unpacking. */
export const useJobs = defineStore('jobs', () => {
  const items = ref<JobItem[]>([])
  /** the job whose report is shown */
  const reported = ref<JobItem>()
  const running = computed(() => items.value.filter(job => job.state === 'running'))

  /** What a job that has just ended leaves to be said and done. */
  async function finish(job: JobItem) {
    await useLibrary().refresh()
    const notices = useNotices()
    const refused = job.report.filter(line => line.outcome === 'refused').length
    const show = { label: 'Show report', run: () => (reported.value = job) }
    if (job.kind === 'fetch' && job.state === 'done') {
      const [file] = await useLibrary().meet(job.files)
      if (file) useTray().pickUp(file.id)
      await tell(`/jobs/${job.id}`, 'DELETE')
    } else if (job.kind === 'unpack' && job.state === 'done') {
      notices.say(`${counted(job.files.length, 'file')} unpacked from “${job.name}”.${refused ? ` ${refused} left out.` : ''}`, {
        tone: refused ? 'attention' : 'works',
        action: show,
      })
    } else if (job.kind === 'bag' && job.state === 'done') {
      notices.say(`${counted(job.files.length, 'file')} brought in from “${job.name}”, every byte checked.`, {
        tone: 'works',
        action: show,
      })
    } else if (job.kind === 'entries' && job.state === 'done') {
      await useCatalogues().refresh()
      notices.say(`“${job.name}” came in: ${counted(job.done, 'entry', 'entries')} new or changed.`, { tone: 'works' })
    } else if (job.state === 'stopped' && job.files.length) {
      notices.say(`Stopped. ${counted(job.files.length, 'file')} had been unpacked and stay.`, { action: show })
    }
  }

  /** Jobs that were begun here or seen at work, and whose end was not told yet. A list that was asked for before one began lacks it. */
  const awaited = new Set<string>()

  async function read() {
    items.value = (await ask(listSchema, '/jobs')).items
    for (const job of items.value) {
      if (job.state === 'running') awaited.add(job.id)
      else if (awaited.delete(job.id)) await finish(job)
    }
  }
  /** One after another: the end of a job is told once. */
  const inTurn = createQueue()
  const load = () => inTurn(read)

  async function begin(path: string, body: unknown) {
    const job = await ask(jobItemSchema, path, 'POST', body)
    awaited.add(job.id)
    items.value = [...items.value, { ...job, state: 'running' }]
    await load()
  }

  return {
    items,
    reported,
    running,
    load,
    /** Fetches a file from a web address into a folder. */
    fetch: (address: string, folder: string | null) => begin('/fetches', { address, folder }),
    /** Brings a bag in, to the top of the library. */
    bringInBag: (fileId: string) => begin(`/files/${fileId}/bag`, {}),
    unpack: (fileId: string, clash: ClashWay = 'both') => begin(`/files/${fileId}/unpack`, { clash }),

    async stop(id: string) {
      await tell(`/jobs/${id}`, 'DELETE').catch(useNotices().refused)
      await load()
    },

    /** Allows the private host a fetch was refused for, and fetches again. */
    async allowHost(job: JobItem, folder: string | null) {
      const { hosts } = await ask(hostListSchema, '/fetch-hosts')
      await tell('/fetch-hosts', 'PUT', { hosts: [...hosts, String(job.extra.host)] })
      await tell(`/jobs/${job.id}`, 'DELETE')
      await begin('/fetches', { address: job.name, folder })
    },
  }
})
