import { randomBytes } from 'node:crypto'
import { cp, mkdtemp, rm, writeFile } from 'node:fs/promises'
import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'
import { inject } from 'vitest'
import { Problem } from '../../core/problem'
import type { Arrival } from '../services/library/library'
import { sha256 } from './digest'
import { openTrough, type Options, type Trough } from '../trough'

declare module 'vitest' {
  interface ProvidedContext { template: string }
}

/** A Trough on a data folder of its own. */
export async function openTestTrough(options: Partial<Options> = {}) {
  const folder = await mkdtemp(join(tmpdir(), 'trough-test-'))
  await cp(inject('template'), folder, { recursive: true })
  const trough = await openTrough({ ...options, data: folder })
  return {
    folder,
    trough,
    put: (fileName: string, bytes: Buffer | string) => putFile(trough, folder, fileName, Buffer.from(bytes)),
    putInto: (fileName: string, bytes: Buffer | string, more: Partial<Arrival>) => putFile(trough, folder, fileName, Buffer.from(bytes), more),
    async close() {
      await trough.close()
      await rm(folder, { recursive: true, force: true })
    },
  }
}
export type TestTrough = Awaited<ReturnType<typeof openTestTrough>>

async function putFile(trough: Trough, folder: string, fileName: string, bytes: Buffer, more: Partial<Arrival> = {}) {
  const path = join(folder, 'incoming', `${randomBytes(8).toString('hex')}.part`)
  await writeFile(path, bytes)
  return trough.library.ingest({ path, fileName, size: bytes.length, sha256: sha256(bytes), crc32: crc32(bytes), ...more })
}

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
    close: () => new Promise<void>((resolve) => {
      server.closeAllConnections()
      server.close(() => resolve())
    }),
  }
}
