/**
 * An error meant for people: what went wrong and what to do about it.
 * It leaves the API as `application/problem+json` (RFC 9457).
 */
export class Problem extends Error {
  /**
   * @param status HTTP status the API answers with
   * @param title what went wrong, in a few words
   * @param detail what the reader can do about it
   * @param extra further members of the problem document (RFC 9457, section 3.2)
   */
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly extra: Record<string, unknown> = {},
  ) {
    // Where a request asks for what it cannot have is no news: looking the stack up would be the dearest part of telling it so.
    const depth = Error.stackTraceLimit
    if (status < 500) Error.stackTraceLimit = 0
    super(`${title} ${detail}`)
    Error.stackTraceLimit = depth
    this.name = 'Problem'
  }
}

export const notFound = (what: string) =>
  new Problem(404, `There is no such ${what}.`, 'It may have been removed. Go back and choose another.')
