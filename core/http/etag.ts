const ENTITY_TAG = /^(W\/)?"([\x21\x23-\x7E\x80-\xFF]*)"$/

/** Splits `If-Match` / `If-None-Match`: `*`, or entity tags as they were sent (RFC 9110, section 13.1.1). */
export function parseEntityTags(header: string): '*' | string[] {
  if (header.trim() === '*') return '*'
  // A comma may stand inside the quotes, so tags are matched, not split.
  return header.match(/(?:W\/)?"[\x21\x23-\x7E\x80-\xFF]*"/g) ?? []
}

/** Strong comparison: equal, and neither is weak (RFC 9110, section 8.8.3.2). */
export function strongMatch(a: string, b: string): boolean {
  return a === b && !a.startsWith('W/') && ENTITY_TAG.test(a)
}

/** Weak comparison: equal but for the weakness mark (RFC 9110, section 8.8.3.2). */
export function weakMatch(a: string, b: string): boolean {
  return a.replace(/^W\//, '') === b.replace(/^W\//, '')
}
