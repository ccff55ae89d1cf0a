/**
 * The path and query of a request target, which may be written in absolute form, as proxies do and every server
 * has to take (RFC 9112, section 3.2.2); undefined where it is neither.
 */
export function originForm(target: string): string | undefined {
  if (target.startsWith('/')) return target
  const [, rest] = /^https?:\/\/[^/?#]*(.*)$/is.exec(target) ?? []
  if (rest === undefined) return undefined
  return rest.startsWith('/') ? rest : `/${rest}`
}

/** Whether a request names its host more than once, which is to be refused (RFC 9112, section 3.2). */
export function namesTwoHosts(rawHeaders: readonly string[]): boolean {
  let count = 0
  for (let at = 0; at < rawHeaders.length; at += 2) {
    const name = rawHeaders[at]!
    if (name.length === 4 && name.toLowerCase() === 'host' && ++count > 1) return true
  }
  return false
}

/** Characters that need no percent-encoding (RFC 3986, section 2.3). */
const UNRESERVED = /[A-Za-z0-9._~-]/

/**
 * How an address was meant: needless percent-encoding undone (RFC 3986, section 6.2.2), doubled slashes, and what
 * stood behind it in a sentence or a mail, left out; in small letters. The same text where nothing is to be done.
 *
 * @param path without its query
 */
export function meantPath(path: string): string {
  const decoded = path.replace(/%([0-9a-f]{2})/gi, (escape, hex: string) => {
    const character = String.fromCharCode(parseInt(hex, 16))
    return UNRESERVED.test(character) ? character : escape.toUpperCase()
  })
  const single = decoded.replace(/\/{2,}/g, '/').replace(/(?<=.)(?:[/.,;:!?)\]}>'"]|%(?:20|22|27|29|2C|3A|3B|3E|C2%A0))+$/i, '')
  return single.replace(/%[0-9A-F]{2}|[A-Z]/g, part => (part.length === 3 ? part : part.toLowerCase()))
}
