import { randomBytes } from 'node:crypto'
import { cp, mkdtemp, rm, writeFile } from 'node:fs/promises'
import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'
import { inject } from 'vitest'
import { Problem } from '../../core/problem'
import { openDatabase } from '../db/connection'
import { openPostgres, type PostgresAddress } from '../db/drivers/postgres'
import type { Connect } from '../opening/dataFolder'
import type { Arrival } from '../services/library/library'
import { openTrough, type Options, type Trough } from '../trough'
import { sha256 } from './digest'
import { makeDatabase } from './postgres'

declare module 'vitest' {
  interface ProvidedContext {
    /** a data folder that was never used, with PGlite's database in it */
    template: string
    /** the server of PostgreSQL where databases are made, for the tests that are run with one */
    postgres: Omit<PostgresAddress, 'database'> | undefined
  }
}

/** Makes a data folder, and a database of the kind the tests are run with that has all its tables and nothing in them. */
export async function databaseOfTest(folder: string): Promise<Connect> {
  return (await makeOfKind(folder)).connect
}

async function makeOfKind(folder: string): Promise<{ connect: Connect; address?: PostgresAddress }> {
  const server = inject('postgres')
  if (!server) {
    await cp(inject('template'), folder, { recursive: true })
    return { connect: openDatabase }
  }
  const address = await makeDatabase(server)
  return { connect: (_folder, onTouched) => openPostgres(address, onTouched), address }
}

/** A Trough on a data folder of its own. */
export async function openTestTrough(options: Partial<Options> = {}) {
  const folder = await mkdtemp(join(tmpdir(), 'trough-test-'))
  const { connect, address } = await makeOfKind(folder)
  const trough = await openTrough({ ...options, data: folder, connect })
  return {
    folder,
    trough,
    /** Opens its database by itself, or what was closed once more. */
    connect: () => connect(join(folder, 'db'), () => undefined),
    openAgain: () => openTrough({ ...options, data: folder, connect }),
    /** where its database is, on a PostgreSQL server */
    address,
    put: (fileName: string, bytes: Buffer | string) => putFile(trough, folder, fileName, Buffer.from(bytes)),
    putInto: (fileName: string, bytes: Buffer | string, more: Partial<Arrival>) =>
      putFile(trough, folder, fileName, Buffer.from(bytes), more),
    async close() {
      await trough.close()
      await rm(folder, { recursive: true, force: true })
    },
  }
}
export type TestTrough = Awaited<ReturnType<typeof openTestTrough>>

/** Puts a file into the library as an upload would. */
export async function putFile(
  trough: Pick<Trough, 'library'>,
  folder: string,
  fileName: string,
  bytes: Buffer,
  more: Partial<Arrival> = {},
) {
  const path = join(folder, 'incoming', `${randomBytes(8).toString('hex')}.part`)
  await writeFile(path, bytes)
  return trough.library.ingest({ path, fileName, size: bytes.length, sha256: sha256(bytes), crc32: crc32(bytes), ...more })
}

/** Somebody who has passed no gate. */
export const STRANGER = { headers: {} } as IncomingMessage

export { sha256 }

/** Serves a handler on a free port. */
export async function listen(handler: (request: IncomingMessage, response: ServerResponse) => Promise<unknown>) {
  const listener: RequestListener = (request, response) => {
    handler(request, response).catch((error: unknown) => {
      if (!response.headersSent) response.statusCode = error instanceof Problem ? error.status : 500
      response.end(error instanceof Error ? error.message : String(error))
    })
  }
  const server = createServer(listener)
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: () =>
      new Promise<void>(resolve => {
        server.closeAllConnections()
        server.close(() => resolve())
      }),
  }
}
