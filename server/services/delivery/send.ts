import type { ServerResponse } from 'node:http'
import type { ByteRange } from '../../../core/http/range'
import { readyFields, type Answer, type Part } from '../../../core/http/respond'
import { Filler } from './filler'
import { pour } from './pour'

type Source = Buffer | Filler

/** Gives a range of the bytes: at once where they are in memory, else as they are read. */
export type ReadRange = (range: ByteRange) => Source | Promise<Buffer>

export interface Sent {
  /** the stretches the system has taken */
  delivered: ByteRange[]
  /** what was under way when the client left */
  unsure?: ByteRange
}

const isRange = (part: Part): part is ByteRange => typeof part === 'object'

async function opened(source: Source | Promise<Buffer>): Promise<Source> {
  const opening = await source
  if (opening instanceof Filler) {
    await opening.ready().catch(async (error: unknown) => {
      await opening.close()
      throw error
    })
  }
  return opening
}

/**
 * Sends an answer, reading no faster than the client takes.
 *
 * @returns what left this machine, also where the client went away
 * @throws Damaged where stored bytes are missing: before anything is sent where that can be known, else the connection is broken off
 */
export async function send(response: ServerResponse, { status, headers, body }: Answer, read: ReadRange): Promise<Sent> {
  // A client that left while its file was looked up: nothing is opened for it.
  if (response.destroyed) return { delivered: [] }
  const first = body.find(isRange)
  const source = first && read(first)
  if (body.length === 1 && Buffer.isBuffer(source))
    return new Promise(resolve => sendAtOnce(response, { status, headers }, first!, source, resolve))
  const ahead = source && (await opened(source))
  const delivered: ByteRange[] = []
  let unsure: ByteRange | undefined
  response.writeHead(status, readyFields(headers))
  try {
    for (const part of body) {
      if (response.destroyed) break
      if (!isRange(part)) {
        response.write(part)
        continue
      }
      const stretch = { start: part.start, end: part.start }
      delivered.push(stretch)
      let handed = part.start
      await sendRange(
        response,
        part === first ? ahead! : await opened(read(part)),
        bytes => (stretch.end += bytes),
        bytes => (handed += bytes),
      )
      if (response.destroyed) unsure = { start: stretch.end, end: handed }
    }
  } catch (error) {
    // The client must not take what has come for the whole.
    response.destroy()
    throw error
  } finally {
    // It was opened beforehand; a client that left since was never sent any of it.
    if (ahead instanceof Filler) await ahead.close()
  }
  if (!response.destroyed) response.end()
  await finished(response)
  return { delivered, unsure }
}

async function sendRange(
  response: ServerResponse,
  source: Source,
  taken: (bytes: number) => void,
  handed: (bytes: number) => void,
): Promise<void> {
  if (source instanceof Filler) return pour(response, source, taken, handed)
  handed(source.length)
  response.write(source, error => {
    if (!error) taken(source.length)
  })
}

/** Sends an answer whose one range is in memory; `report` learns what left this machine, when it has or the client has gone away. */
export function sendAtOnce(
  response: ServerResponse,
  { status, headers }: Pick<Answer, 'status' | 'headers'>,
  range: ByteRange,
  bytes: Buffer,
  report: (sent: Sent) => void,
): void {
  response.writeHead(status, readyFields(headers)).end(bytes)
  response.once('close', () => report(response.writableFinished ? { delivered: [range] } : { delivered: [], unsure: range }))
}

/** Until the last byte is handed to the system, or the client is gone. */
function finished(response: ServerResponse): Promise<void> {
  if (response.writableFinished || response.destroyed) return Promise.resolve()
  return new Promise(resolve => {
    response.once('finish', resolve)
    response.once('close', resolve)
  })
}
