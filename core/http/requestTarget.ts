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
