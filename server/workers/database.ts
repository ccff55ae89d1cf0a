import { fsyncSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { parentPort, workerData } from 'node:worker_threads'
import { PGlite, types } from '@electric-sql/pglite'
import { amcheck } from '@electric-sql/pglite/contrib/amcheck'
import { NodeFS } from '@electric-sql/pglite/nodefs'

/** What the thread is started with. */
export interface DatabaseStart {
  folder: string
}
/** A question: `many` where the text may hold several statements and no parameters. */
export interface DatabaseQuestion {
  id: number
  sql: string
  params?: unknown[]
  rowMode?: 'array' | 'object'
  many?: boolean
}
export type DatabaseMessage =
  | { ready: true }
  | { touched: string }
  | { id: number; result: unknown }
  | { id: number | null; error: Record<string, unknown> & { message: string } }

const port = parentPort!
const say = (message: DatabaseMessage) => port.postMessage(message)

/** Drizzle reads moments and numbers without loss from their texts. */
const asText = (text: string) => text
const parsers = Object.fromEntries(
  [types.TIMESTAMP, types.TIMESTAMPTZ, types.INTERVAL, types.DATE, 1231, 1115, 1185, 1187, 1182].map(type => [type, asText]),
)

type Streams = Record<string, (stream: { nfd: number }) => number>

/**
 * The folder of the database as PGlite sees it, with an fsync, which its own has not: what PostgreSQL asks to be on the
 * disk is there when it goes on, from the recovery at its start to its last checkpoint.
 */
class SyncedFolder extends NodeFS {
  override async init(pg: Parameters<NodeFS['init']>[0], options: Parameters<NodeFS['init']>[1]): ReturnType<NodeFS['init']> {
    const giveFsync = (module: { NODEFS: { stream_ops: Streams } }) => {
      module.NODEFS.stream_ops.fsync = ({ nfd }) => {
        fsyncSync(nfd)
        return 0
      }
    }
    const preRun = [...((options.preRun as (() => void)[]) ?? []), giveFsync] as typeof options.preRun
    return super.init(pg, { ...options, preRun })
  }
}

/**
 * Opens PGlite so that what it acknowledges is on the disk: its own defaults leave PostgreSQL's fsync out (`-F`;
 * PostgreSQL, WAL reliability). `fdatasync` does nothing in its build, so the method is `fsync`.
 */
async function open(folder: string): Promise<PGlite> {
  // PostgreSQL's own lock file, which a power cut may leave empty: that nobody else is here is known by ours.
  rmSync(join(folder, 'postmaster.pid'), { force: true })
  const client = await PGlite.create({
    fs: new SyncedFolder(folder),
    startParams: [...PGlite.defaultStartParams.filter(parameter => parameter !== '-F'), '-c', 'wal_sync_method=fsync'],
    extensions: { amcheck },
  })
  client.onNotification((_channel, payload) => say({ touched: payload }))
  await client.exec('listen touched')
  return client
}

/** An error as it goes from thread to thread: how its question was asked holds functions, which cannot (HTML, structured clone). */
function told(error: unknown): Record<string, unknown> & { message: string } {
  const { queryOptions: _, ...fields } = error as Record<string, unknown>
  return { ...fields, message: error instanceof Error ? error.message : String(error), stack: (error as Error).stack }
}

async function answer(client: PGlite, { id, sql, params, rowMode, many }: DatabaseQuestion): Promise<void> {
  try {
    say({ id, result: many ? await client.exec(sql) : await client.query(sql, params, { rowMode, parsers }) })
  } catch (error) {
    say({ id, error: told(error) })
  }
}

try {
  const client = await open((workerData as DatabaseStart).folder)
  // One after another, in the order they were asked: transactions lean on it.
  let last = Promise.resolve()
  port.on('message', (question: DatabaseQuestion | 'close') => {
    last = last.then(async () => {
      if (question !== 'close') return answer(client, question)
      await client.close()
      port.close()
    })
  })
  say({ ready: true })
} catch (error) {
  say({ id: null, error: told(error) })
  port.close()
}
