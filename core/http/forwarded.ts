const plain = (address: string) => {
  const text = address.trim()
  return text.startsWith('::ffff:') ? text.slice(7) : text
}

/** The addresses in a Forwarded field (RFC 7239, section 4), in the order of the way; quotes, brackets and ports are left out. */
function forwardedAddresses(field: string): string {
  return [...field.matchAll(/for=(?:"?\[([^\]]+)\](?::\d+)?"?|"?([^";,\s]+?)(?::\d+)?"?)(?=[;,\s]|$)/gi)]
    .map(([, six, other]) => six ?? other)
    .join(',')
}

export interface Way {
  /** the connection's own address */
  connection: string | undefined
  /** X-Forwarded-For (common practice) */
  forwardedFor: string | undefined
  /** Forwarded (RFC 7239); only where there is none of the other */
  forwarded?: string | undefined
}

/**
 * The address a request comes from: the connection's own, or, where that is a front server of ours, the last
 * one it names that is not (the addresses are added at the end, so whatever stands further left may be made up).
 */
export function visitorAddress({ connection, forwardedFor, forwarded }: Way, fronts: ReadonlySet<string>): string {
  if (!fronts.size) return plain(connection ?? '')
  const told = forwardedFor ?? (forwarded === undefined ? '' : forwardedAddresses(forwarded))
  const way = [...told.split(',').filter(Boolean), connection ?? ''].map(plain)
  let last = way.pop()!
  while (fronts.has(last) && way.length) last = way.pop()!
  return last
}

/** What one customer of a network has: an IPv4 address, or the first 64 bits of an IPv6 one (RFC 6177). */
export function networkOf(address: string): string {
  if (!address.includes(':')) return address
  const [head = '', tail] = address.split('%')[0]!.split('::')
  const groups = head ? head.split(':') : []
  if (tail !== undefined) {
    const rest = tail ? tail.split(':') : []
    groups.push(...Array.from({ length: Math.max(0, 8 - groups.length - rest.length) }, () => '0'), ...rest)
  }
  return `${groups
    .slice(0, 4)
    .map(group => parseInt(group, 16).toString(16))
    .join(':')}::/64`
}
