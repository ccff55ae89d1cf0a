import { getQuery, getRouterParam, getRouterParams, type H3Event } from 'h3'
import type { z } from 'zod'
import { editionPathSchema } from '../../core/files/item'
import { Problem } from '../../core/problem'

/** Larger than any page document may be. */
const MAX_BODY = 8 * 1000 * 1000

/** @throws Problem 422 naming the first thing that is wrong, with all of them in `issues` */
export function parse<Schema extends z.ZodType>(schema: Schema, input: unknown): z.output<Schema> {
  const result = schema.safeParse(input)
  if (result.success) return result.data
  const issues = result.error.issues.map(({ path, message }) => ({ field: path.join('.'), message }))
  const { field, message } = issues[0]!
  throw new Problem(422, 'That cannot be used as it is.', field ? `${message} (${field})` : message, { field, issues })
}

/** The JSON body of a request. */
export async function parseBody<Schema extends z.ZodType>(event: H3Event, schema: Schema): Promise<z.output<Schema>> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of event.node.req as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > MAX_BODY) throw new Problem(413, 'That is too much at once.', 'Send at most 8 MB.')
    chunks.push(chunk)
  }
  let body: unknown
  try {
    body = JSON.parse(Buffer.concat(chunks).toString('utf8') || '{}')
  }
  catch {
    throw new Problem(400, 'The request is not JSON.', 'Send a JSON object.')
  }
  return parse(schema, body)
}

export const parseQuery = <Schema extends z.ZodType>(event: H3Event, schema: Schema) => parse(schema, getQuery(event))

/** The identity in the address of a request. */
export const idOf = (event: H3Event) => getRouterParam(event, 'id')!

/** The file and edition in the address of a request. */
export const editionOf = (event: H3Event) => parse(editionPathSchema, getRouterParams(event))
