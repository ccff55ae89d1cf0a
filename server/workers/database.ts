import { fsyncSync } from 'node:fs'
import { parentPort, workerData } from 'node:worker_threads'
import { PGlite, types } from '@electric-sql/pglite'
import { amcheck } from '@electric-sql/pglite/contrib/amcheck'

/** What the thread is started with. */
export interface DatabaseStart { folder: string }
/** A question: `many` where the text may hold several statements and no parameters. */
export interface DatabaseQuestion { id: number, sql: string, params?: unknown[], rowMode?: 'array' | 'object', many?: boolean }
export type DatabaseMessage =
  | { ready: true }
  | { touched: string }
  | { id: number, result: unknown }
  | { id: number | null, error: Record<string, unknown> & { message: string } }

const port = parentPort!
const say = (message: DatabaseMessage) => port.postMessage(message)

/** Drizzle reads moments and numbers without loss from their texts. */
const asText = (text: string) => text
const parsers = Object.fromEntries([types.TIMESTAMP, types.TIMESTAMPTZ, types.INTERVAL, types.DATE, 1231, 1115, 1185, 1187, 1182].map(type => [type, asText]))

/**
 * Opens PGlite so that what it acknowledges is on the disk: its own defaults leave PostgreSQL's fsync out (`-F`), and its
 * file system has none (PostgreSQL, WAL reliability). `fdatasync` does nothing in its build, so the method is `fsync`.
 */
async function open(folder: string): Promise<PGlite> {
  const client = await PGlite.create(folder, {
    startParams: [...PGlite.defaultStartParams.filter(parameter => parameter !== '-F'), '-c', 'wal_sync_method=fsync'],
    extensions: { amcheck },
  })
  const fileSystem = client.Module.FS as unknown as {
    lookupPath: (path: string) => { node: { mount: { type: { stream_ops: Record<string, (stream: { nfd: number }) => number> } } } }
  }
  fileSystem.lookupPath('/pglite/data').node.mount.type.stream_ops.fsync = ({ nfd }) => {
    fsyncSync(nfd)
    return 0
  }
  client.onNotification((_channel, payload) => say({ touched: payload }))
  await client.exec('listen touched')
  return client
}

const told = (error: unknown) => ({ ...error as object, message: error instanceof Error ? error.message : String(error), stack: (error as Error).stack })

async function answer(client: PGlite, { id, sql, params, rowMode, many }: DatabaseQuestion): Promise<void> {
  try {
    say({ id, result: many ? await client.exec(sql) : await client.query(sql, params, { rowMode, parsers }) })
  }
  catch (error) {
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
}
catch (error) {
  say({ id: null, error: told(error) })
  port.close()
}
