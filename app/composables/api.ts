import type { Use } from '~~/core/files/fileItem'
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

const UNREACHABLE = new ApiProblem(0, 'Trough cannot be reached.', 'Check the connection; what you did is kept here.')

/**
 * Calls the desk's API.
 *
 * @throws ApiProblem with words for people; status 0 where there is no connection
 */
export async function api<T>(path: string, method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE' = 'GET', body?: unknown): Promise<T> {
  const request = fetch(`/api${path}`, {
    method,
    headers: body === undefined ? undefined : { 'Content-Type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  }).catch(() => {
    throw UNREACHABLE
  })
  const response = await (method === 'GET' ? request : asOwnAct(request))
  if (response.status === 204) return undefined as T
  const answer = await response.json().catch(() => ({}))
  if (response.ok) return answer as T
  if (response.status === 401 && !path.startsWith('/session')) window.location.assign('/desk/sign-in')
  const { title = 'Something went wrong.', detail = 'Try again.', ...extra } = answer
  throw new ApiProblem(response.status, title, detail, extra)
}

/** Does what places that lead somewhere may hold back; gives those where they do. */
export async function heldBy(act: () => Promise<unknown>): Promise<Use[]> {
  try {
    await act()
    return []
  } catch (error) {
    if (error instanceof ApiProblem && Array.isArray(error.extra.uses)) return error.extra.uses as Use[]
    throw error
  }
}

/** What to show of an error that was caught. */
export const wordsOf = (error: unknown) => (error instanceof Error ? error.message : String(error))
