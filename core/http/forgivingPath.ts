/** Characters that need no percent-encoding (RFC 3986, section 2.3). */
const UNRESERVED = /[A-Za-z0-9._~-]/
/** What nothing is to be undone in: most addresses. */
const PLAIN = /^(?:\/[a-z0-9._~-]*[a-z0-9_~-])+$/

/** What may stand behind an address in a sentence or a mail, as itself or percent-encoded. */
const BEHIND = new Set('/.,;:!?)]}>\'"')
const BEHIND_ENCODED = ['%20', '%22', '%27', '%29', '%2C', '%3A', '%3B', '%3E', '%C2%A0']

/** A path without what stands behind it; read from its end, so that a long row of such characters costs no more than its length. */
function withoutBehind(path: string): string {
  let end = path.length
  for (;;) {
    const encoded = BEHIND_ENCODED.find(escape => path.endsWith(escape, end))
    const length = encoded ? encoded.length : BEHIND.has(path[end - 1]!) ? 1 : 0
    if (!length || end - length < 1) return path.slice(0, end)
    end -= length
  }
}

/**
 * How an address was meant: needless percent-encoding undone (RFC 3986, section 6.2.2), doubled slashes, and what
 * stood behind it in a sentence or a mail, left out; in small letters. The same text where nothing is to be done.
 *
 * @param path without its query
 */
export function meantPath(path: string): string {
  if (PLAIN.test(path)) return path
  const decoded = path.replace(/%([0-9a-f]{2})/gi, (escape, hex: string) => {
    const character = String.fromCharCode(parseInt(hex, 16))
    return UNRESERVED.test(character) ? character : escape.toUpperCase()
  })
  return withoutBehind(decoded.replace(/\/{2,}/g, '/')).replace(/%[0-9A-F]{2}|[A-Z]/g, part =>
    part.length === 3 ? part : part.toLowerCase(),
  )
}
