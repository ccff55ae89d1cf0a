import { once } from 'node:events'
import type { ServerResponse } from 'node:http'
import type { Readable } from 'node:stream'
import type { ByteRange } from '../../../core/http/range'
import type { Answer } from '../../../core/http/respond'

/** Gives a stretch of the bytes: at once where they are in memory, else as they are read. */
export type ReadRange = (range: ByteRange) => Buffer | Readable

/**
 * Sends an answer, reading no faster than the client takes.
 *
 * @returns the stretches of the representation that left this machine, also where the client went away
 */
export async function send(response: ServerResponse, { status, headers, body }: Answer, read: ReadRange): Promise<ByteRange[]> {
  const delivered: ByteRange[] = []
  const only = body.length === 1 && typeof body[0] === 'object' ? read(body[0]) : undefined
  if (Buffer.isBuffer(only)) {
    response.writeHead(status, headers).end(only)
    await finished(response)
    return response.writableFinished ? [body[0] as ByteRange] : []
  }
  response.writeHead(status, headers)
  for (const part of body) {
    if (response.destroyed) break
    if (typeof part === 'string') {
      response.write(part)
      continue
    }
    const source = only ?? read(part)
    const stretch = { start: part.start, end: part.start }
    delivered.push(stretch)
    for await (const chunk of Buffer.isBuffer(source) ? [source] : source) {
      if (response.destroyed) break
      stretch.end += (chunk as Buffer).length
      if (!response.write(chunk)) await drained(response)
    }
  }
  if (!response.destroyed) response.end()
  await finished(response)
  if (!response.writableFinished && delivered.length) {
    // What still waits in our own buffers never left; the rest is in the system's hands.
    const last = delivered.at(-1)!
    last.end = Math.max(last.start, last.end - response.writableLength)
  }
  return delivered
}

async function drained(response: ServerResponse): Promise<void> {
  const stop = new AbortController()
  await Promise.race([once(response, 'drain', { signal: stop.signal }), once(response, 'close', { signal: stop.signal })]).finally(() => stop.abort())
}

/** Until the last byte is handed to the system, or the client is gone. */
function finished(response: ServerResponse): Promise<void> {
  if (response.writableFinished || response.destroyed) return Promise.resolve()
  return new Promise((resolve) => {
    response.once('finish', resolve)
    response.once('close', resolve)
  })
}
