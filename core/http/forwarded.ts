const plain = (address: string) => address.startsWith('::ffff:') ? address.slice(7) : address.trim()

/**
 * The address a request comes from: the connection's own, or, where that is a front server of ours, the last
 * one in X-Forwarded-For that is not (common practice; the field's addresses are added at the end, so whatever
 * stands further left may be made up).
 */
export function visitorAddress(connection: string | undefined, forwardedFor: string | undefined, fronts: ReadonlySet<string>): string {
  if (!fronts.size) return plain(connection ?? '')
  const way = [...(forwardedFor ?? '').split(',').filter(Boolean), connection ?? ''].map(plain)
  let last = way.pop()!
  while (fronts.has(last) && way.length) last = way.pop()!
  return last
}
