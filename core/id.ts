const ALPHABET = '0123456789abcdefghijkmnpqrstvwxyz'

/** A random identity of small letters and digits; 12 characters carry 60 bits. */
export function newId(length = 12): string {
  const bytes = globalThis.crypto.getRandomValues(new Uint8Array(length))
  return Array.from(bytes, byte => ALPHABET[byte % 32]).join('')
}
