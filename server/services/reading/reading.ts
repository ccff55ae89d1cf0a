import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { and, eq } from 'drizzle-orm'
import type { Database } from '../../db/connection'
import { blobs, editions } from '../../db/schema'
import { ROOT } from '../../root'
import type { Store } from '../../store/store'
import type { DeriveResult, DeriveTask } from '../../workers/derive'
import type { Events } from '../events'

/** One file may take this long before its worker is given up. */
const PATIENCE = 60_000

const DERIVE_WORKER = join(ROOT, '.output/workers/derive.mjs')

/** What can be read out of files: page counts, pixel sizes and pictures, made one at a time in a worker. */
export function createDeriveService(db: Database, store: Store, folder: string, events: Events, script = DERIVE_WORKER, patience = PATIENCE) {
  let worker: Worker | undefined
  let running: Promise<void> | undefined
  let again = false
  let closed = false

  const pictureOf = (sha256: string) => join(folder, sha256.slice(0, 2), sha256, 'first.webp')

  /** Hands one task to the worker; a worker that dies or hangs fails the task, and the next gets a new one. */
  function run(task: DeriveTask): Promise<DeriveResult> {
    const current = worker ??= new Worker(script, { resourceLimits: { maxOldGenerationSizeMb: 1024 } })
    return new Promise((resolve) => {
      const fail = (error: string) => {
        worker = undefined
        void current.terminate()
        done({ sha256: task.sha256, error })
      }
      const timer = setTimeout(() => fail('Reading it took too long.'), patience)
      const onError = (error: unknown) => fail(`Reading it stopped: ${error instanceof Error ? error.message : String(error)}`)
      const onExit = () => fail('Reading it stopped the reader.')
      const done = (result: DeriveResult) => {
        clearTimeout(timer)
        current.off('message', done).off('error', onError).off('exit', onExit)
        resolve(result)
      }
      current.on('message', done).on('error', onError).on('exit', onExit)
      current.postMessage(task)
    })
  }

  async function next(): Promise<DeriveTask | undefined> {
    const [row] = await db.select({ sha256: blobs.sha256, mediaType: editions.mediaType }).from(blobs)
      .innerJoin(editions, eq(editions.sha256, blobs.sha256)).where(eq(blobs.preview, 'waiting')).limit(1)
    return row && { ...row, path: store.pathOf(row.sha256), picture: pictureOf(row.sha256) }
  }

  async function drain(): Promise<void> {
    for (let task = await next(); task && !closed; task = await next()) {
      const result = await run(task)
      if (closed) return
      const change = 'error' in result
        ? { preview: 'failed' as const, previewError: result.error }
        : { preview: result.picture ? 'ready' as const : 'none' as const, facts: result.facts }
      await db.update(blobs).set(change).where(and(eq(blobs.sha256, task.sha256), eq(blobs.preview, 'waiting')))
      events.emit('library')
    }
  }

  /** Works off what waits; called again while at it, it looks once more at the end. */
  function wake(): Promise<void> {
    again = true
    running ??= (async () => {
      while (again && !closed) {
        again = false
        await drain()
      }
    })().finally(() => running = undefined)
    return running
  }

  const onLibrary = () => {
    // What waits stays marked as waiting: a failure here is tried again with the next change or start.
    wake().catch(error => console.error('Reading new files failed:', error))
  }

  return {
    pictureOf,
    start() {
      events.on('library', onLibrary)
      onLibrary()
    },
    /** Resolves when nothing waits. */
    idle: wake,
    async close() {
      closed = true
      events.off('library', onLibrary)
      const stopping = worker
      worker = undefined
      await stopping?.terminate()
      await running
    },
  }
}
