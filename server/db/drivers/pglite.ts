import { Worker } from 'node:worker_threads'
import type { PGlite, Results } from '@electric-sql/pglite'
import type { DatabaseMessage, DatabaseQuestion, DatabaseStart } from '../../workers/database'
import { log } from '../../log'
import { workerScript } from '../../services/workerHost'

type Wait = { resolve: (result: never) => void; reject: (error: Error) => void }
type Query = (sql: string, params?: unknown[], options?: { rowMode?: 'array' | 'object' }) => Promise<Results>

/** The part of PGlite that Drizzle speaks to, and what this house adds. */
export interface PGliteThread {
  query: Query
  exec: (sql: string) => Promise<unknown>
  transaction: <T>(work: (tx: { query: Query; exec: (sql: string) => Promise<unknown> }) => Promise<T>) => Promise<T>
  /** Runs something while no query does. */
  runExclusive: <T>(work: () => Promise<T>) => Promise<T>
  close: () => Promise<void>
}

/**
 * Ends the process where the database gave up, as it does when it cannot write its log any more (PostgreSQL, severity
 * PANIC): all that asks it afterwards would wait for ever. What it has acknowledged is there again after the next start.
 */
function giveUp(error: Error): never {
  log.fatal({ err: error }, 'the database cannot go on; see that the disk has room, and start Trough again')
  process.exit(1)
}

/**
 * Opens PGlite in a thread of its own: whatever it does, the loop that answers visitors goes on.
 *
 * @param onTouched is told what a change touched, after its commit and before whoever made it goes on
 * @throws Error of PostgreSQL where the folder cannot be opened
 */
export async function openPGlite(folder: string, onTouched: (touched: string) => void): Promise<PGliteThread> {
  const worker = new Worker(workerScript('database'), { workerData: { folder } satisfies DatabaseStart })
  const waiting = new Map<number, Wait>()
  let count = 0
  let closing = false

  await new Promise<void>((resolve, reject) => {
    worker.on('message', (message: DatabaseMessage) => {
      if ('ready' in message) return resolve()
      if ('touched' in message) return onTouched(message.touched)
      const wait = message.id === null ? { resolve, reject } : waiting.get(message.id)!
      if (message.id !== null) waiting.delete(message.id)
      if ('result' in message) return wait.resolve(message.result as never)
      const error = Object.assign(new Error(message.error.message), message.error)
      if (message.error.severity === 'PANIC') giveUp(error)
      wait.reject(error)
    })
    worker.on('error', error => {
      reject(error)
      if (!closing && waiting.size) giveUp(error as Error)
    })
    worker.on('exit', () => {
      reject(new Error('The database ended while it was opened.'))
      if (!closing && waiting.size) giveUp(new Error('The thread of the database has ended.'))
    })
  })

  const ask = <T>(question: Omit<DatabaseQuestion, 'id'>) =>
    new Promise<T>((resolve, reject) => {
      const id = ++count
      waiting.set(id, { resolve, reject } as Wait)
      worker.postMessage({ id, ...question } satisfies DatabaseQuestion)
    })
  const query: Query = (sql, params, { rowMode } = {}) => ask({ sql, params, rowMode })
  const exec = (sql: string) => ask({ sql, many: true })

  // While somebody has the connection for itself, the others wait; they are woken in the order they came.
  let held: Promise<void> | undefined
  async function runExclusive<T>(work: () => Promise<T>): Promise<T> {
    while (held) await held
    let release!: () => void
    held = new Promise<void>(
      resolve =>
        (release = () => {
          held = undefined
          resolve()
        }),
    )
    try {
      return await work()
    } finally {
      release()
    }
  }
  async function afterOthers<T>(work: () => Promise<T>): Promise<T> {
    while (held) await held
    return work()
  }

  return {
    query: (...given) => (held ? afterOthers(() => query(...given)) : query(...given)),
    exec: sql => (held ? afterOthers(() => exec(sql)) : exec(sql)),
    runExclusive: work =>
      runExclusive(async () => {
        // What was asked before has been answered when this is.
        await exec('select 1')
        return work()
      }),
    transaction: work =>
      runExclusive(async () => {
        // Not waited for: the thread takes it before whatever follows.
        const begun = exec('begin')
        try {
          const result = await work({ query, exec })
          await begun
          await exec('commit')
          return result
        } catch (error) {
          await exec('rollback')
          throw error
        }
      }),
    async close() {
      closing = true
      worker.postMessage('close')
      await new Promise<void>(resolve => worker.once('exit', () => resolve()))
    },
  }
}

/** What Drizzle takes for PGlite. */
export const asPGlite = (thread: PGliteThread) => thread as unknown as PGlite
