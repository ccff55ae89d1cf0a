import type { JobItem } from '../../../core/jobs/jobItem'
import { newId } from '../../../core/id'
import { Problem, notFound } from '../../../core/problem'
import { log } from '../../log'

/** Milliseconds an ended job is still known. */
const REMEMBERED = 60 * 60 * 1000

/** Lets a job's work tell how far it is. */
export type Work = (job: JobItem, signal: AbortSignal) => Promise<void>

/** Milliseconds between two words of how far a job is. */
const EVERY = 400

/**
 * Work that goes on after its request was answered; it ends with the process.
 *
 * @param changed is called when a job begins or ends, and as it goes on
 */
export function createJobs(changed: () => void = () => undefined) {
  const jobs = new Map<string, { item: JobItem; control: AbortController; ended: Promise<void> }>()

  function mustHave(id: string) {
    const job = jobs.get(id)
    if (!job) throw notFound('job')
    return job
  }

  async function run(item: JobItem, signal: AbortSignal, work: Work): Promise<void> {
    const beat = setInterval(changed, EVERY).unref()
    changed()
    try {
      await work(item, signal)
      item.state = 'done'
    } catch (error) {
      item.state = signal.aborted ? 'stopped' : 'failed'
      item.error = error instanceof Problem ? error.message : signal.aborted ? null : `Something went wrong: ${(error as Error).message}`
      if (error instanceof Problem) item.extra = error.extra
      else if (!signal.aborted) log.error({ err: error, job: item.name }, 'a job failed')
    }
    clearInterval(beat)
    changed()
    setTimeout(() => jobs.delete(item.id), REMEMBERED).unref()
  }

  return {
    start(begun: Pick<JobItem, 'kind' | 'name' | 'unit' | 'by'>, work: Work): JobItem {
      const item: JobItem = {
        ...begun,
        id: newId(),
        done: 0,
        total: null,
        state: 'running',
        error: null,
        extra: {},
        files: [],
        report: [],
      }
      const control = new AbortController()
      jobs.set(item.id, { item, control, ended: run(item, control.signal, work) })
      return item
    },
    list: (): JobItem[] => [...jobs.values()].map(({ item }) => item),
    get: (id: string): JobItem => mustHave(id).item,

    /** Stops a job that runs; forgets one that has ended. */
    async stop(id: string): Promise<void> {
      const { item, control, ended } = mustHave(id)
      if (item.state !== 'running') {
        jobs.delete(id)
        changed()
        return
      }
      control.abort()
      await ended
    },

    /** Resolves when a job has ended. */
    ended: (id: string): Promise<void> => mustHave(id).ended,

    async close(): Promise<void> {
      for (const { control } of jobs.values()) control.abort()
      await Promise.all([...jobs.values()].map(job => job.ended))
    },
  }
}
export type Jobs = ReturnType<typeof createJobs>
