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
