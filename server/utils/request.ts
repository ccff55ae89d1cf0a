import type { IncomingMessage } from 'node:http'
import { setImmediate as turn } from 'node:timers/promises'
import { getQuery, getRouterParam, getRouterParams, type H3Event } from 'h3'
import type { z } from 'zod'
import { editionPathSchema } from '../../core/files/fileItem'
import { DEEPEST, holdsNul, isDeeperThan, wellFormed } from '../../core/http/nesting'
import { formatSize } from '../../core/files/size'
import { Problem } from '../../core/problem'

/** Bytes of a body where a route says nothing else: forms and choices. */
const MOST = 256_000
/** A sign-in or set-up. */
export const SECRET = 4_000
/** A page's document, or a file of looks. */
export const DOCUMENT = 1_000_000
/** A choice of many things by their identities or names. */
export const MANY = 4_000_000
/** A list that somebody brings along. */
export const TEXT = 8_500_000
/** Bytes of a body that is not read and checked in one turn of the event loop: visitors come in between. */
const LONG = 64_000
/** Milliseconds in which a body of that kind has to be there. */
const WITHIN = 30_000

/** @throws Problem 422 naming the first thing that is wrong, with all of them in `issues` */
export function parse<Schema extends z.ZodType>(schema: Schema, input: unknown): z.output<Schema> {
  const result = schema.safeParse(input)
  if (result.success) return result.data
  const issues = result.error.issues.map(({ path, message }) => ({ field: path.join('.'), message }))
  const { field, message } = issues[0]!
  throw new Problem(422, 'That cannot be used as it is.', field ? `${message} (${field})` : message, { field, issues })
}

async function readBody(req: IncomingMessage, most: number): Promise<Buffer> {
  const tooMuch = () => new Problem(413, 'That is too much at once.', `Send at most ${formatSize(most)}.`)
  if (Number(req.headers['content-length'] ?? 0) > most) throw tooMuch()
  const late = setTimeout(() => req.destroy(new Problem(408, 'The request took too long to come.', 'Try again.')), WITHIN)
  try {
    const chunks: Buffer[] = []
    let size = 0
    for await (const chunk of req as AsyncIterable<Buffer>) {
      size += chunk.length
      if (size > most) throw tooMuch()
      chunks.push(chunk)
    }
    return Buffer.concat(chunks)
  } finally {
    clearTimeout(late)
  }
}

/**
 * A form as browsers send it (WHATWG URL, application/x-www-form-urlencoded).
 *
 * @throws Problem 413 where it is longer than `most` bytes
 */
export const formOf = async (request: IncomingMessage, most: number): Promise<URLSearchParams> =>
  new URLSearchParams((await readBody(request, most)).toString('utf8'))

/**
 * The JSON body of a request.
 *
 * @param most bytes it may have
 * @throws Problem 400, 408, 413 or 422, each before anything is done with it
 */
export async function parseBody<Schema extends z.ZodType>(event: H3Event, schema: Schema, { most = MOST } = {}): Promise<z.output<Schema>> {
  const bytes = await readBody(event.node.req, most)
  if (isDeeperThan(bytes, DEEPEST)) throw new Problem(400, 'That is nested too deeply.', `Send lists and objects at most ${DEEPEST} deep.`)
  const isLong = bytes.length > LONG
  if (isLong) await turn()
  const text = bytes.toString('utf8')
  let body: unknown
  try {
    body = JSON.parse(text || '{}')
  } catch {
    throw new Problem(400, 'The request is not JSON.', 'Send a JSON object.')
  }
  if (text.includes('\\u0000') && holdsNul(body))
    throw new Problem(422, 'There is a character in that which no text may hold (NUL).', 'Leave it out.')
  // Only so can they be written in UTF-8.
  if (/\\ud[89a-f]/i.test(text)) body = wellFormed(body)
  if (isLong) await turn()
  return parse(schema, body)
}

export const parseQuery = <Schema extends z.ZodType>(event: H3Event, schema: Schema) => parse(schema, getQuery(event))

/** The identity in the address of a request. */
export const idOf = (event: H3Event) => getRouterParam(event, 'id')!

/** The file and edition in the address of a request. */
export const editionOf = (event: H3Event) => parse(editionPathSchema, getRouterParams(event))
