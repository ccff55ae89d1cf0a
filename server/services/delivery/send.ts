import { once } from 'node:events'
import type { ServerResponse } from 'node:http'
import type { Readable } from 'node:stream'
import type { ByteRange } from '../../../core/http/range'
import type { Answer } from '../../../core/http/respond'

/** Gives a stretch of the bytes: at once where they are in memory, else as they are read. */
export type ReadRange = (range: ByteRange) => Buffer | Readable

export interface Sent {
  /** the stretches the system has taken */
  delivered: ByteRange[]
  /** what was under way when the client left */
  unsure?: ByteRange
}

/**
 * Sends an answer, reading no faster than the client takes.
 *
 * @returns what left this machine, also where the client went away
 */
export async function send(response: ServerResponse, { status, headers, body }: Answer, read: ReadRange): Promise<Sent> {
  // A client that left while its file was looked up: nothing is opened for it.
  if (response.destroyed) return { delivered: [] }
  const delivered: ByteRange[] = []
  let unsure: ByteRange | undefined
  const only = body.length === 1 && typeof body[0] === 'object' ? read(body[0]) : undefined
  if (Buffer.isBuffer(only)) {
    response.writeHead(status, headers).end(only)
    await finished(response)
    const whole = body[0] as ByteRange
    return response.writableFinished ? { delivered: [whole] } : { delivered: [], unsure: whole }
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
    let handed = part.start
    for await (const chunk of Buffer.isBuffer(source) ? [source] : source) {
      // Counted when the system has taken it: what waits in our own buffers may never leave.
      handed += (chunk as Buffer).length
      const more = response.write(chunk, (error) => {
        if (!error) stretch.end += (chunk as Buffer).length
      })
      if (!more) await drained(response)
      if (response.destroyed) break
    }
    if (response.destroyed) unsure = { start: stretch.end, end: handed }
  }
  if (!response.destroyed) response.end()
  await finished(response)
  return { delivered, unsure }
}

async function drained(response: ServerResponse): Promise<void> {
  // A client that left while the chunk was written has closed already: no event will come.
  if (response.destroyed) return
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
