const [QUOTE, BACKSLASH, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [0x22, 0x5c, 0x5b, 0x5d, 0x7b, 0x7d]

/** Deeper than anything this site sends or asks for; JSON leaves the bound to who reads it (RFC 8259, section 9). */
export const DEEPEST = 100

/**
 * Whether JSON text opens more lists and objects within each other than a bound allows, without parsing it: what
 * stands in strings does not count.
 *
 * @param text bytes of UTF-8
 */
export function isDeeperThan(text: Uint8Array, bound: number): boolean {
  let depth = 0
  let inString = false
  for (let at = 0; at < text.length; at++) {
    const byte = text[at]
    if (inString) {
      if (byte === BACKSLASH) at++
      else if (byte === QUOTE) inString = false
    } else if (byte === QUOTE) inString = true
    else if (byte === OPEN_LIST || byte === OPEN_OBJECT) {
      if (++depth > bound) return true
    } else if (byte === CLOSE_LIST || byte === CLOSE_OBJECT) depth--
  }
  return false
}

/**
 * A value read from JSON with the sign for what is no character in place of halves of characters, which a database takes for no JSON
 * (RFC 8259, section 8.2; Web IDL does so with what is a USVString).
 */
export function wellFormed(value: unknown): unknown {
  if (typeof value === 'string') return value.toWellFormed()
  if (Array.isArray(value)) return value.map(wellFormed)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(Object.entries(value).map(([name, inner]) => [name.toWellFormed(), wellFormed(inner)]))
}

/** Whether a value read from JSON has the character NUL in a text or name: no database text may hold it (PostgreSQL, character types). */
export function holdsNul(value: unknown): boolean {
  if (typeof value === 'string') return value.includes('\0')
  if (typeof value !== 'object' || value === null) return false
  return Object.entries(value).some(([name, inner]) => name.includes('\0') || holdsNul(inner))
}
