const UNRESERVED = /[A-Za-z0-9\-._~]/

/**
 * A path, with its query, in the one way of writing it that all others mean: what needs no escape has none, and the
 * others are in capitals (RFC 3986, 6.2.2.1 and 6.2.2.2).
 */
export const normalPath = (path: string): string =>
  path.includes('%')
    ? path.replace(/%([0-9a-f]{2})/gi, (escape, digits: string) => {
        const character = String.fromCharCode(Number.parseInt(digits, 16))
        return UNRESERVED.test(character) ? character : escape.toUpperCase()
      })
    : path

/**
 * What may be meant by a path that is asked for, the surest first: as it is, without its query, without the slash or index file at its
 * end.
 */
export function waysToRead(asked: string): string[] {
  const whole = normalPath(asked)
  const [bare] = whole.split('?') as [string]
  const short = bare.replace(/\/(?:index|default)\.(?:html?|php|aspx?)$/i, '/').replace(/(?<=.)\/$/, '')
  return [...new Set([whole, bare, short, `${short}/`])]
}

/** Whether an old address could ever be asked for: the desk and its parts answer before it. */
export const canBeAsked = (path: string): boolean => path !== '/' && !/^\/(?:desk|api|_[^/]*)(?:[/?]|$)/.test(path)
