import { createHmac } from 'node:crypto'
import { isRobot } from '../../../core/tally/robots'
import { Transfers, type Delivery, type Download } from '../../../core/tally/transfers'
import type { Database } from '../../db/connection'
import { downloads } from '../../db/schema'

/** A delivery as the server saw it, before who it was is made unreadable. */
export interface Observation extends Omit<Delivery, 'visitor' | 'at'> {
  address: string
  userAgent: string | undefined
}

const FLUSH_AFTER = 250

/** Counts completed downloads, after the answer and off its path. */
export function createTallyService(db: Database, secret: string, now: () => number = Date.now) {
  const transfers = new Transfers()
  let observed: Observation[] = []
  let completed: Download[] = []
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  /** Nothing of this is stored; it only keeps the ranges of one visitor together. */
  const markOf = (address: string, userAgent = '') => createHmac('sha256', secret).update(`${address}\n${userAgent}`).digest('base64')

  function take({ address, userAgent, ...delivery }: Observation): void {
    if (isRobot(userAgent)) return
    const download = transfers.add({ ...delivery, visitor: markOf(address, userAgent), at: now() })
    if (download) completed.push(download)
  }

  async function write(): Promise<void> {
    observed.forEach(take)
    observed = []
    const batch = completed
    completed = []
    if (!batch.length) return
    try {
      await db.insert(downloads).values(batch.map(({ file, at, ...rest }) => ({ ...rest, fileId: file, at: new Date(at) })))
    }
    catch (error) {
      // Kept for the next time: a count is not lost because the disk was full for a while.
      completed = [...batch, ...completed]
      throw error
    }
  }

  /** Writes what was observed so far. */
  function flush(): Promise<void> {
    clearTimeout(timer)
    timer = undefined
    writing = writing.catch(() => undefined).then(write)
    return writing
  }

  return {
    observe(observation: Observation): void {
      observed.push(observation)
      timer ??= setTimeout(() => flush().catch(error => console.error('Downloads could not be written yet:', error)), FLUSH_AFTER)
    },
    flush,
  }
}
export type TallyService = ReturnType<typeof createTallyService>
