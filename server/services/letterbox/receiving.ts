import { rm } from 'node:fs/promises'
import type { IncomingMessage } from 'node:http'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import busboy from 'busboy'
import { MOST_AT_ONCE, LETTERBOX_FIELDS } from '../../../core/letterbox/letterbox'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { keep, type Kept } from '../uploads/keep'

/** Bytes of one field of text, and how many fields there may be: the form has fewer and shorter ones. */
const FIELD = 4000
const FIELDS = 12

/** Milliseconds in which nothing came, and in which all has to be there. */
const SILENCE = 30_000
const WITHIN = 30 * 60_000

export interface Limits {
  /** files */
  most: number
  /** bytes of each */
  each: number
  /** bytes of the whole request */
  inAll: number
}

export interface Received {
  fields: Map<string, string>
  files: (Kept & { fileName: string })[]
  /** what could not be taken; no file was kept then */
  fault?: 'tooMany' | 'tooLarge' | 'fields'
}

/** Forgets files that were written down and will not be taken. */
export const discard = async (files: readonly Kept[]): Promise<void> => {
  for (const { path } of files) await rm(path, { force: true })
}

/**
 * Reads a form with files (RFC 7578) as it comes: each file goes to the disk, none is whole in memory. Once something cannot be taken, the
 * rest is read and dropped, so that whoever sent it is told. Nothing is left of one that broke off.
 *
 * @param pathOf where the next file is written
 * @param fieldsAreGood asked before the first file: who sent nothing to answer to need not be written down
 * @throws VisitorProblem 400 where it is no such form or broke off, 413 where it is longer than all may be
 */
export async function receive(
  request: IncomingMessage,
  { most, each, inAll }: Limits,
  pathOf: () => string,
  fieldsAreGood: (fields: Map<string, string>) => boolean,
): Promise<Received> {
  const received: Received = { fields: new Map(), files: [] }
  const writing: Promise<unknown>[] = []
  let coming = 0
  const form = openForm(request, most, each)
  form.on('field', (name, value) => received.fields.set(name, value))
  form.on('filesLimit', () => (received.fault ??= 'tooMany'))
  form.on('file', (name, stream, { filename }) => {
    // A field in which nothing was chosen comes without a name (HTML, constructing the entry list).
    const fileName = filename ?? ''
    if (!coming && !fieldsAreGood(received.fields)) received.fault ??= 'fields'
    if (received.fault || name !== LETTERBOX_FIELDS.files || !fileName || coming >= MOST_AT_ONCE) {
      stream.on('error', () => undefined).resume()
      return
    }
    coming++
    const writes = keep(stream, pathOf()).then(kept => {
      received.files.push({ ...kept, fileName })
      if ((stream as { truncated?: boolean }).truncated) received.fault ??= 'tooLarge'
    })
    // What fails here fails the whole below.
    writes.catch((error: Error) => form.destroy(error))
    writing.push(writes)
  })
  // Who sends a byte a minute is let go; there is nobody to be told anything.
  const late = (): void => void request.destroy()
  const timer = setTimeout(late, WITHIN)
  request.setTimeout(SILENCE, late)
  try {
    await pipeline(request, counted(inAll), form)
    await Promise.all(writing)
  } catch (error) {
    await Promise.allSettled(writing)
    await discard(received.files)
    throw error instanceof VisitorProblem || isOurs(error) ? error : new VisitorProblem(400, 'refused')
  } finally {
    clearTimeout(timer)
    request.setTimeout(0)
  }
  if (!received.fault && !fieldsAreGood(received.fields)) received.fault = 'fields'
  if (received.fault) {
    await discard(received.files)
    received.files = []
  }
  return received
}

/** What went wrong with the disk is no fault of who sent it. */
const isOurs = (error: unknown): boolean =>
  !!(error as NodeJS.ErrnoException).code && !/^(?:ECONN|ERR_STREAM|EPIPE|ABORT)/.test((error as NodeJS.ErrnoException).code!)

function openForm({ headers }: IncomingMessage, most: number, each: number) {
  try {
    return busboy({
      headers,
      defParamCharset: 'utf8',
      limits: { files: most, fileSize: each, fields: FIELDS, fieldSize: FIELD, fieldNameSize: 100, headerPairs: 50 },
    })
  } catch {
    throw new VisitorProblem(400, 'refused')
  }
}

/** Lets bytes through, up to so many. */
function counted(most: number): Transform {
  let seen = 0
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      seen += chunk.length
      if (seen > most) done(new VisitorProblem(413, 'tooMuch'))
      else done(null, chunk)
    },
  })
}
