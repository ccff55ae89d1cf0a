import { z } from 'zod'
import { useSchema, type Use } from '~~/core/files/fileItem'
import { asOwnAct } from './ownActs'

/** An error as the API tells it (RFC 9457). */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly extra: Record<string, unknown> = {},
  ) {
    super(`${title} ${detail}`)
    this.name = 'ApiProblem'
  }
}

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'

const UNREACHABLE = new ApiProblem(0, 'Trough cannot be reached.', 'Check the connection; what you did is kept here.')
const NOT_UNDERSTOOD = new ApiProblem(0, 'The answer was not understood.', 'Load the desk again: Trough may have been renewed meanwhile.')
const problemSchema = z.looseObject({
  title: z.string().catch('Something went wrong.'),
  detail: z.string().catch('Try again.'),
})

async function send(path: string, method: Method, body: unknown): Promise<unknown> {
  const request = fetch(`/api${path}`, {
    method,
    headers: body === undefined || body instanceof Blob ? undefined : { 'Content-Type': 'application/json' },
    body: body === undefined || body instanceof Blob ? body : JSON.stringify(body),
  }).catch(() => {
    throw UNREACHABLE
  })
  const response = await (method === 'GET' ? request : asOwnAct(request))
  if (response.status === 204) return undefined
  // What stands between may answer with a page of its own.
  const answer: unknown = await response.json().catch(() => ({}))
  if (response.ok) return answer
  if (response.status === 401 && !path.startsWith('/session')) window.location.assign('/desk/sign-in')
  const { title, detail, ...extra } = problemSchema.parse(answer)
  throw new ApiProblem(response.status, title, detail, extra)
}

/**
 * Asks the desk's API.
 *
 * @param schema what the answer is read by
 * @param body a file goes as it is, all else as JSON
 * @throws ApiProblem with words for people; status 0 where there is no connection, or an answer that is not read
 */
export async function ask<T>(schema: z.ZodType<T>, path: string, method: Method = 'GET', body?: unknown): Promise<T> {
  const { data, success, error } = schema.safeParse(await send(path, method, body))
  if (success) return data
  console.error(`${method} /api${path}`, error)
  throw NOT_UNDERSTOOD
}

/** Tells the desk's API what to do, where nothing is to be learned from its answer. @throws ApiProblem as `ask` does */
export async function tell(path: string, method: Exclude<Method, 'GET'>, body?: unknown): Promise<void> {
  await send(path, method, body)
}

/** Does what places that lead somewhere may hold back; gives those where they do. */
export async function heldBy(act: () => Promise<unknown>): Promise<Use[]> {
  try {
    await act()
    return []
  } catch (error) {
    const uses = error instanceof ApiProblem ? z.array(useSchema).safeParse(error.extra.uses) : undefined
    if (uses?.success) return uses.data
    throw error
  }
}

/** What to show of an error that was caught. */
export const wordsOf = (error: unknown) => (error instanceof Error ? error.message : String(error))
