import { rm } from 'node:fs/promises'
import type { IncomingMessage } from 'node:http'
import { pipeline } from 'node:stream/promises'
import busboy from 'busboy'
import { LETTERBOX_FIELDS } from '../../../core/letterbox/letterbox'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { Problem } from '../../../core/problem'
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
  fields: URLSearchParams
  /** in the order they stood in */
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
 * rest is read and dropped, so that whoever sent it is told. Nothing is left of one that broke off. The connection stays open to answer.
 *
 * @param pathOf where the next file is written
 * @param fieldsAreGood asked before the first file: who sent nothing to answer to need not be written down
 * @throws VisitorProblem 400 where it is no such form or broke off, 413 where it is longer than all may be, 507 where the disk is full
 */
export async function receive(
  request: IncomingMessage,
  { most, each, inAll }: Limits,
  pathOf: () => string,
  fieldsAreGood: (fields: URLSearchParams) => boolean,
): Promise<Received> {
  const fields = new URLSearchParams()
  const writing: Promise<{ kept: Received['files'][number]; cut: boolean }>[] = []
  let fault: Received['fault']
  let trouble: unknown
  const form = openForm(request, most, each)
  form.on('field', (name, value) => fields.set(name, value))
  form.on('filesLimit', () => (fault ??= 'tooMany'))
  form.on('file', (name, stream, { filename }) => {
    if (!writing.length && !fieldsAreGood(fields)) fault ??= 'fields'
    // A field in which nothing was chosen comes without a name (HTML, constructing the entry list).
    if (fault || name !== LETTERBOX_FIELDS.files || !filename) {
      stream.on('error', () => undefined).resume()
      return
    }
    const writes = keep(stream, pathOf()).then(kept => ({ kept: { ...kept, fileName: filename }, cut: !!stream.truncated }))
    // What fails here fails the whole below.
    writes.catch((error: unknown) => form.destroy((trouble = error) as Error))
    writing.push(writes)
  })
  // Who sends a byte a minute is let go; there is nobody to be told anything.
  const late = (): void => void request.destroy()
  const timer = setTimeout(late, WITHIN)
  request.setTimeout(SILENCE, late)
  try {
    await pipeline(counted(request, inAll), form)
  } catch (error) {
    trouble ??= error
  } finally {
    clearTimeout(timer)
    request.setTimeout(0)
  }
  const written = (await Promise.allSettled(writing)).flatMap(each => (each.status === 'fulfilled' ? each.value : []))
  const files = written.map(({ kept }) => kept)
  if (written.some(({ cut }) => cut)) fault ??= 'tooLarge'
  if (!fieldsAreGood(fields)) fault ??= 'fields'
  if (trouble !== undefined || fault) await discard(files)
  if (trouble !== undefined) throw told(trouble)
  return fault ? { fields, files: [], fault } : { fields, files }
}

/** What a visitor is told of what went wrong on the way; what is no fault of theirs stays what it is. */
function told(trouble: unknown): unknown {
  if (trouble instanceof VisitorProblem) return trouble
  if (trouble instanceof Problem) return trouble.status === 507 ? new VisitorProblem(507, 'noRoom') : trouble
  const { code } = trouble as NodeJS.ErrnoException
  // A form that is none, and one that broke off, come without a code, or with one of a connection.
  return !code || /^(?:ECONN|ERR_STREAM|EPIPE|ABORT)/.test(code) ? new VisitorProblem(400, 'refused') : trouble
}

function openForm({ headers }: IncomingMessage, most: number, each: number) {
  try {
    return busboy({
      headers,
      defParamCharset: 'utf8',
      limits: { files: most, fileSize: each, fields: FIELDS, fieldSize: FIELD, fieldNameSize: 100, headerPairs: 50 },
    })
  } catch {
    // Not its kind: there is no other reason.
    throw new VisitorProblem(400, 'refused')
  }
}

/** Lets bytes through, up to so many; the request outlives it, to be answered. */
async function* counted(request: IncomingMessage, most: number): AsyncGenerator<Buffer> {
  let seen = 0
  for await (const chunk of request.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
    seen += chunk.length
    if (seen > most) throw new VisitorProblem(413, 'tooMuch')
    yield chunk
  }
}
